import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { KindForm } from "../book/EntryPage";
import { type Entry, type EntryView, EditingContext, bookChanged, put } from "../book/useEntry";
import { TextOf } from "../book/fields";
import { useJob } from "../job/JobContext";
import { DifferenceTable } from "./KeepInBook";
import { usePinned } from "./choices";
import styles from "./work.module.css";
import book from "../book/book.module.css";
import { change as save } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { useInTurn } from "../api/useInTurn";

/** An entry as this job has it. What is changed here stays in the job until it is kept in the Book on purpose. */
export function EntryInJob() {
  const { entry: id } = useParams() as { entry: string };
  const [open, { job }] = useJob();
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const { data: view, error } = useQuery({ ...askJob.entry(job, id), retry: false });
  const pinned = usePinned();
  const latest = useRef<Entry | null>(null);
  const inTurn = useInTurn();
  useEffect(() => {
    latest.current = view?.entry ?? null;
  }, [view]);

  const change = useCallback(
    (how: (entry: Entry) => Entry) =>
      inTurn(async () => {
        const was = latest.current!;
        const entry = how(structuredClone(was));
        await open.through((sent) => save.entryInJob(job.id, id, { ...sent, was, entry }));
        latest.current = entry;
      }),
    [id, job.id, open, inTurn],
  );
  const set = useCallback(
    (field: string, value: unknown) => change((entry) => (put(entry, field, value), entry)),
    [change],
  );

  if (error)
    return (
      <section className={`panel ${styles.empty}`} aria-label="Entry">
        <h2>{error.message}</h2>
        <p>
          <Link to={`/jobs/${job.id}/work`}>Back to the work</Link>
        </p>
      </section>
    );
  if (!view) return <section className={`panel ${styles.empty}`} aria-busy="true" aria-label="Opening the entry" />;
  const here = pinned?.find((p) => p.id === id);

  async function tell(post: () => Promise<void>) {
    try {
      await post();
      setWrong("");
    } catch (refused) {
      setWrong((refused as Error).message);
    }
  }
  const keep = () =>
    tell(async () => {
      const keeping = { was: here!.bookVersion ?? 0, work: null };
      await open.through((sent) => save.keepInBook(job.id, id, sent, keeping));
      await bookChanged(queries);
    });
  const take = () => tell(() => open.send({ type: "takeFromBook", entries: [id], work: null }));

  return (
    <EditingContext value={{ view: view as EntryView, set, change }}>
      <div className={styles.work}>
        <section className={`panel ${book.entry}`} aria-label={`${view.entry.name}, in this job`}>
          <header>
            <h2>{view.entry.name}</h2>
            <span className="note">as this job has it; other jobs and the Book stay as they are</span>
          </header>
          <div className={book.form}>
            <TextOf label="Name" path="name" />
            <KindForm key={String(here?.version)} kind={view.entry.kind} tried={undefined} />
          </div>
        </section>
        <aside className={`panel ${styles.sheet}`} aria-label="This job and the Book">
          <header>
            <h2>This job and the Book</h2>
          </header>
          <section className={styles.cellsheet}>
            {!here ? (
              <p className="note">Comparing…</p>
            ) : here.differences.length === 0 ? (
              <p className="note">The job has version {here.version}, as the Book has it.</p>
            ) : (
              <>
                <p className="note">
                  {here.changedHere ? "Changed in this job. " : ""}
                  {here.bookVersion && here.bookVersion !== here.version
                    ? `The job has version ${here.version}, the Book ${here.bookVersion}.`
                    : ""}
                </p>
                <DifferenceTable lines={here.differences} was="in this job" now="in the Book" />
                <p className="acts">
                  <button className="act" onClick={() => void keep()}>
                    Keep in the Book
                  </button>
                  <button className="act" onClick={() => void take()}>
                    Take from the Book
                  </button>
                </p>
              </>
            )}
            {wrong && (
              <p className="error" role="alert">
                {wrong}
              </p>
            )}
            <p className="note">
              <Link to={`/jobs/${job.id}/work`}>Back to the work</Link> ·{" "}
              <Link to={`/book/${id}`}>its entry in the Book</Link>
            </p>
            {view.usedBy.length > 0 && (
              <>
                <h3>In this job it is used by</h3>
                {view.usedBy.map((e) => (
                  <p key={e.id} className="note">
                    <Link to={`/jobs/${job.id}/book/${e.id}`}>{e.name}</Link>
                  </p>
                ))}
              </>
            )}
          </section>
        </aside>
      </div>
    </EditingContext>
  );
}
