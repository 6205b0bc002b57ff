import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState, type CSSProperties } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import styles from "./hours.module.css";
import { MoneyRow, MoneyRows } from "./MoneyRows";
import { useDeliver } from "./useDeliver";
import { WriteHours } from "./WriteHours";

type Row = Schemas["WorkUsedView"];

/** Hours used against hours allowed, and what they teach the Book. */
export function HoursUsed({ data }: { data: Schemas["DeliverView"] }) {
  const { job } = useDeliver();
  const { data: used } = useQuery(askJob.hoursUsed(job));
  const [writing, setWriting] = useState(false);
  const [keeping, setKeeping] = useState<Schemas["RateQuestion"] | null>(null);
  if (!used) return <div aria-busy="true" aria-label="Reckoning the hours" />;
  return (
    <div className={styles.columns}>
      <section className={`panel ${styles.used}`} aria-label="Hours used">
        <table>
          <thead>
            <tr>
              <th scope="col">Work, as far as it is done</th>
              <th scope="col">
                Allowed <i>h</i>
              </th>
              <th scope="col">
                Used <i>h</i>
              </th>
              <th scope="col">over, under</th>
              <th scope="col">Book</th>
              <th scope="col">This job</th>
              <th scope="col">Last five</th>
              <th scope="col" className={styles.scale}>
                <span>slower</span>
                <span>10 % a tick</span>
                <span>faster</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {used.work.map((row) => (
              <WorkRow key={row.work} row={row} onKeep={setKeeping} />
            ))}
            {used.others.map((row) => (
              <tr key={row.name}>
                <th scope="row">{row.name}</th>
                <td>{row.allowed}</td>
                <td>
                  <b>{row.used}</b>
                </td>
                <td className={row.isOver ? styles.over : undefined}>{row.over}</td>
                <td colSpan={4} />
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th scope="row">Together</th>
              <td>{used.soFar}</td>
              <td>{used.used}</td>
              <td className={used.isOver ? styles.over : undefined}>{used.over}</td>
              <td colSpan={4} className={styles.key}>
                <i className={styles.book} aria-hidden="true" /> Book <i className={styles.here} aria-hidden="true" />{" "}
                this job <i className={styles.five} aria-hidden="true" /> each of the last five{" "}
                <i className={styles.middle} aria-hidden="true" /> the middle one
              </td>
            </tr>
          </tfoot>
        </table>
      </section>
      <div className={styles.right}>
        <section className="panel" aria-label="How it stands">
          <header>
            <h2>Where the hours went</h2>
            <button type="button" className="act note" onClick={() => setWriting(true)}>
              Write hours
            </button>
          </header>
          <ul className={styles.people} aria-label="Hours by person">
            {used.people.map((person) => (
              <li key={person.person}>
                <span>{person.person}</span>
                <i aria-hidden="true" style={{ "--share": person.share } as CSSProperties} />
                <b>{person.hours}</b>
              </li>
            ))}
          </ul>
          <p className="pad note">{used.says}</p>
        </section>
        <section className="panel" aria-label="Profit">
          <header>
            <h2>Profit</h2>
            <span className="note">price less cost</span>
          </header>
          <MoneyRows rows={[]}>
            {used.profits.map((row) => (
              <MoneyRow key={row.label} label={row.label} detail={row.detail}>
                <b>
                  {row.amount}
                  <small>{row.margin}</small>
                </b>
              </MoneyRow>
            ))}
          </MoneyRows>
        </section>
        {used.questions.length > 0 && (
          <section className="panel" aria-label="Questions for the Book">
            <header>
              <h2>Questions for the Book</h2>
              <span className="note">{used.questions.length}</span>
            </header>
            {used.questions.map((question) => (
              <div className="pad" key={question.entry + question.coats}>
                <p>{question.words}</p>
                <p className="note">{question.spread}</p>
                <p>
                  <Button variant="outlined" onClick={() => setKeeping(question)}>
                    {question.keep} in the Book
                  </Button>
                </p>
              </div>
            ))}
          </section>
        )}
        <Written data={data} />
      </div>
      {writing && <WriteHours data={data} onClose={() => setWriting(false)} />}
      {keeping && <Keep question={keeping} onClose={() => setKeeping(null)} />}
    </div>
  );
}

function WorkRow({ row, onKeep }: { row: Row; onKeep: (question: Schemas["RateQuestion"]) => void }) {
  return (
    <tr>
      <th scope="row">
        {row.name}
        <small>{[row.done, row.says].filter(Boolean).join(" · ")}</small>
      </th>
      <td>{row.soFar}</td>
      <td>
        <b>{row.used}</b>
      </td>
      <td className={row.isOver ? styles.over : undefined}>{row.over}</td>
      <td>{row.book}</td>
      <td>
        <b>{row.here?.pace}</b>
      </td>
      <td>{row.middle?.pace}</td>
      <td className={styles.scale}>
        {row.unit && (
          <>
            <Scale row={row} />
            <span className="note">
              {row.unit}
              {row.question && (
                <>
                  {" · "}
                  <button type="button" className="link" onClick={() => onKeep(row.question!)}>
                    {row.question.keep}
                  </button>
                </>
              )}
            </span>
          </>
        )}
      </td>
    </tr>
  );
}

/** Where this job and the last five stand beside the Book: places on screen, not figures. */
function Scale({ row }: { row: Row }) {
  const at = (point: Schemas["RatePoint"]) => ({ "--faster": point.faster }) as CSSProperties;
  return (
    <div className={styles.blade} aria-hidden="true">
      <i className={styles.book} />
      {row.lastFive.map((point) => (
        <i key={point.job} className={styles.five} style={at(point)} title={`${point.job}: ${point.pace}`} />
      ))}
      {row.middle && <i className={styles.middle} style={at(row.middle)} />}
      {row.here && <i className={styles.here} style={at(row.here)} />}
    </div>
  );
}

/** Asks once more before the Book has another rate. */
function Keep({ question, onClose }: { question: Schemas["RateQuestion"]; onClose: () => void }) {
  const { job, rates } = useDeliver();
  const { entry, coats, version, pace } = question;
  return (
    <Ask
      title="Keep it in the Book"
      apply={question.keep}
      width="xs"
      onApply={() => change.keepRate(job.id, { entry, coats, version, pace }).then(rates)}
      onClose={onClose}
    >
      <p>{question.words}</p>
      <p className="note">{question.spread}</p>
      <p className="note">
        The entry gets a new version that names these jobs. Jobs that have it already keep theirs until their prices are
        refreshed.
      </p>
    </Ask>
  );
}

/** Hours that were written, and what takes them back. */
function Written({ data }: { data: Schemas["DeliverView"] }) {
  const { job, act, wrong } = useDeliver();
  return (
    <section className="panel" aria-label="Hours written">
      <header>
        <h2>Hours written</h2>
        <span className="note">the latest day first</span>
      </header>
      {wrong && (
        <p className="pad error" role="alert">
          {wrong}
        </p>
      )}
      {data.hours.length === 0 && <p className="pad note">Nobody has written hours yet.</p>}
      <ul className={styles.written} aria-label="Hours written">
        {data.hours.map((hours) => (
          <li key={hours.id}>
            <span>
              <b>{hours.hours}</b> {hours.person}, {hours.day}
              <small>
                {hours.on}
                {hours.words && ` · ${hours.words}`}
              </small>
              <small>written by {hours.by}</small>
            </span>
            <button
              type="button"
              className="act"
              aria-label={`Take back ${hours.hours} of ${hours.person}, ${hours.day}`}
              onClick={() => void act(change.takeHoursBack(job.id, hours.id, newId()))}
            >
              Take back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
