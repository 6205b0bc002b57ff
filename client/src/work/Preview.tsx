import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import { ExplainContext, type Explainer, Workings } from "../figure/Workings";
import { WhyContext, useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import styles from "./work.module.css";
import { askJob } from "../api/jobQueries";
import { workings } from "../api/jobQueries";

/** What an edit would move before it is made: hours, materials, cost and price, then the work and goods that move. */
export function Preview({ edit, brief }: { edit: Edit | null; brief?: boolean }) {
  const [, { job }] = useJob();
  const [why, setWhy] = useState<string | null>(null);
  const { data, error } = useQuery({ ...askJob.preview(job, edit!), enabled: edit !== null });
  if (!edit) return null;
  if (error)
    return (
      <p className="error" role="alert">
        {error.message}
      </p>
    );
  if (!data) return <p className="note">Reckoning…</p>;
  const explain: Explainer = {
    key: ["preview", job.id, job.version, edit],
    load: (figure) => workings.preview(job.id, edit!, figure),
    source: () => null,
  };
  const moved = data.totals.filter((t) => t.moves);
  return (
    <WhyContext value={setWhy}>
      <section className="preview" aria-label="What it would move" aria-live="polite">
        {moved.length === 0 && data.work.length === 0 && data.goods.length === 0 ? (
          <p className="note">It moves no figure.</p>
        ) : (
          <table>
            <thead>
              <tr>
                <th scope="col">
                  <span className={styles.away}>What</span>
                </th>
                {!brief && <th scope="col">now</th>}
                {!brief && <th scope="col">then</th>}
                <th scope="col">moves by</th>
              </tr>
            </thead>
            <Lines lines={moved} brief={brief} />
            {data.work.length > 0 && <Lines title="Hours" lines={data.work} brief={brief} />}
            {data.goods.length > 0 && <Lines title="Goods needed" lines={data.goods} brief={brief} />}
          </table>
        )}
      </section>
      <ExplainContext value={explain}>
        <Workings path={why} onPath={setWhy} />
      </ExplainContext>
    </WhyContext>
  );
}

function Lines({ title, lines, brief }: { title?: string; lines: readonly Schemas["PreviewRow"][]; brief?: boolean }) {
  return (
    <tbody>
      {title && (
        <tr className="title">
          <th scope="rowgroup" colSpan={brief ? 2 : 4}>
            {title}
          </th>
        </tr>
      )}
      {lines.map((line) => (
        <tr key={line.label}>
          <th scope="row">{line.label}</th>
          {!brief && (
            <td>
              <Figure figure={line.was} label={`${line.label}, now`} />
            </td>
          )}
          {!brief && (
            <td>
              <Figure figure={line.now} label={`${line.label}, then`} />
            </td>
          )}
          <td className="moves">{line.moves && <Figure figure={line.moves} label={`${line.label} moves by`} />}</td>
        </tr>
      ))}
    </tbody>
  );
}
