import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Refused } from "../api/client";
import { useJob } from "../job/JobContext";
import { Radios } from "../controls/Radios";
import { Input } from "../controls/Input";
import styles from "./measure.module.css";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";

const own = "over ";

/** Chooses how openings are taken off; what each rule would do to the job is shown before it is applied. */
export function DeductionDialog({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const [rule, setRule] = useState(job.deduct);
  const start = job.deduct.startsWith(own)
    ? job.deduct.slice(own.length)
    : job.units === "feet"
      ? "10 ft2; 5 ft2; 3 ft"
      : "1 m2; 0.5 m2; 1 m";
  const [limits, setLimits] = useState(start.split(";").map((l) => l.trim()));
  const isOwn = rule.startsWith(own);
  const chosen = isOwn ? own + limits.join("; ") : rule;
  const { data, error } = useQuery(askJob.deduction(job, chosen));

  return (
    <Ask
      title="How openings are taken off in this job"
      apply="Apply"
      ready={data !== undefined && chosen !== job.deduct}
      width="md"
      className={styles.deduction}
      onApply={() => open.send({ type: "setDeduction", was: job.deduct, rule: chosen })}
      onClose={onClose}
    >
      <Radios
        label="Rule"
        value={isOwn ? "own" : rule}
        options={[
          ...job.rules.map((r) => ({ value: r.name, words: r.label, small: r.source })),
          {
            value: "own",
            words: "own limits",
            small: "an opening is deducted whole when it is larger; equal is not",
          },
        ]}
        onChoose={(now) => setRule(now === "own" ? own : now)}
      >
        {isOwn && (
          <div className={styles.limits}>
            {["Walls over", "Floors over", "Lengths over"].map((label, i) => (
              <Input
                key={label}
                label={label}
                value={limits[i]!}
                onType={(text) => setLimits(limits.map((l, j) => (j === i ? text : l)))}
              />
            ))}
          </div>
        )}
      </Radios>
      <div aria-live="polite">
        {error ? (
          <p className="error">{(error as Refused).message}</p>
        ) : (
          data && (
            <>
              <table className="list">
                <thead>
                  <tr>
                    <th>Whole job</th>
                    <th className="n">now</th>
                    <th className="n">then</th>
                    <th className="n">moves</th>
                  </tr>
                </thead>
                <tbody>
                  {data.totals.map((t) => (
                    <tr key={t.label}>
                      <td>{t.label}</td>
                      <td className="n">
                        {t.now} <i>{t.unit}</i>
                      </td>
                      <td className="n">
                        {t.then} <i>{t.unit}</i>
                      </td>
                      <td className="n">
                        <b>{t.moved}</b>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p className="note">
                {data.places.length === 0
                  ? "No place changes."
                  : `${data.places.length} places change: ${data.places
                      .slice(0, 4)
                      .map((p) => `${p.name} ${p.now} → ${p.then} ${p.unit}`)
                      .join(", ")}${data.places.length > 4 ? " …" : ""}`}
              </p>
            </>
          )
        )}
      </div>
    </Ask>
  );
}
