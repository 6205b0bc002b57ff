import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { useJob } from "../job/JobContext";
import { Differs } from "./Differs";
import { Facts } from "./Facts";
import { Links } from "./Links";
import { NextContact } from "./NextContact";
import { Paper } from "./Paper";
import styles from "./revisions.module.css";
import { FromTo, SendPanel } from "./SendPanel";

/** What was sent, how each revision stands, and what differs between two of them, or one and the job as it stands. */
export function Revisions() {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.revisions(job));
  const [pair, setPair] = useState<{ from: string; to: string } | null>(null);
  const [shown, setShown] = useState("");
  const latest = data?.revisions[0];
  const from = pair?.from ?? latest?.id ?? "";
  const to = pair?.to ?? "";
  const { data: compared } = useQuery({
    ...askJob.compared(job, from, to === "" ? null : to),
    enabled: from !== "" && from !== to,
  });
  const { data: sent } = useQuery({ ...askJob.revision(job, shown), enabled: shown !== "" });
  if (!data) return null;
  const reading = data.revisions.find((r) => r.id === (shown === "" ? from : shown));
  const name = (id: string) =>
    data.revisions.find((r) => r.id === id)?.letters ?? (data.closed === "" ? data.next : "the job");
  return (
    <div className={styles.revisions}>
      <section className={`panel ${styles.list}`} aria-label="Revisions">
        <header>
          <h2>Revisions</h2>
          {latest && (
            <span className="note">
              {name(to)} against {name(from)}
            </span>
          )}
        </header>
        {data.scheduled && (
          <article aria-label={`Revision ${data.scheduled.letters}, waits to go out`}>
            <h3>
              <b>{data.scheduled.letters}</b> waits to go out
            </h3>
            <p className="note">{data.scheduled.goes}</p>
          </article>
        )}
        {data.closed === "" && (
          <article className={to === "" ? styles.on : ""} aria-label={`Revision ${data.next}, draft`}>
            <h3>
              <b>{data.next}</b> draft <span>{data.beforeTax}</span>
            </h3>
            <p className="note">
              {!latest
                ? "Nothing was sent yet."
                : data.differs
                  ? "The job as it stands; it differs from what was sent."
                  : `The job is as ${latest.letters} says it.`}
            </p>
          </article>
        )}
        {data.revisions.map((revision) => (
          <Facts
            key={revision.id}
            revision={revision}
            chosen={revision.id === from || revision.id === to}
            reading={revision.id === shown}
            onShow={() => setShown(revision.id === shown ? "" : revision.id)}
          />
        ))}
        {latest && data.closed === "" && (
          <p className="pad note">
            When {data.next} is sent, {latest.letters} reads <b>superseded</b>, takes no yes any more, and gives no way
            to {data.next}.
          </p>
        )}
        {data.revisions.length + (data.closed === "" ? 1 : 0) > 2 && (
          <div className="pad">
            <Choice
              label="Earlier"
              value={from}
              options={data.revisions.map((r) => [r.id, `Revision ${r.letters}`] as const)}
              onChoose={(id) => setPair({ from: id, to })}
            />
            <Choice
              label="Later"
              value={to}
              none={data.closed === "" ? `${data.next}, the job as it stands` : undefined}
              options={data.revisions.map((r) => [r.id, `Revision ${r.letters}`] as const)}
              onChoose={(id) => setPair({ from, to: id })}
            />
          </div>
        )}
      </section>
      {shown !== "" && sent ? (
        <section className={styles.ground} aria-label={`Revision ${name(shown)} as it was sent`} tabIndex={0}>
          <Paper document={sent.document} brand={sent.brand} />
        </section>
      ) : compared ? (
        <Differs compared={compared} />
      ) : (
        <section className="panel" aria-label="What differs">
          <header>
            <h2>What differs</h2>
          </header>
          <p className="pad note">
            {latest
              ? "Choose two that are not the same."
              : "What is sent keeps its numbers and words for good. From then on it stands here beside the job, with what was added, dropped, repriced and reworded."}
          </p>
        </section>
      )}
      <div className={styles.right}>
        {compared && shown === "" && <FromTo compared={compared} />}
        {reading && <Links key={reading.id} revision={reading} outside={data.outside} />}
        <SendPanel revisions={data} />
        <NextContact />
      </div>
    </div>
  );
}
