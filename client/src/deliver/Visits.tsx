import { Button } from "@mui/material";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { classes } from "../controls/classes";
import { EndRound, MoveVisit, SayDone, SayLeftOut } from "./VisitDialogs";
import { MoneyRow, MoneyRows } from "./MoneyRows";
import { useVisits } from "./useDeliver";
import styles from "./visits.module.css";

type Row = Schemas["VisitRow"];

/** What is asked about a visit, or about all that are still to come. */
type Asking = { what: "done" | "leaveOut" | "move"; row: Row } | { what: "came"; kind: Schemas["RoundKind"] } | "end";

/** The visits of a round: the months of its contract year on a tape, and what has become of each visit. */
export function Visits({ data }: { data: Schemas["RoundView"] }) {
  const { job, act, wrong } = useVisits();
  const now = data.months.find((m) => m.isNow);
  const [month, setMonth] = useState<number | null>(
    now?.month ?? data.months.find((m) => m.visits > m.done + m.leftOut)?.month ?? null,
  );
  const [asking, setAsking] = useState<Asking | null>(null);
  const open = data.visits.filter((v) => v.said === "open");
  const rows = month === null ? data.visits : data.visits.filter((v) => v.month === month);
  const shows = month === null ? "all of the year" : data.months[month]!.name;
  const say = (visits: readonly Schemas["VisitKey"][], said: Schemas["VisitSaid"]) =>
    void act(change.sayOfVisits(job.id, { id: newId(), visits: [...visits], said, day: "", words: "", hours: [] }));
  const close = () => setAsking(null);
  return (
    <div className={styles.columns}>
      <section className={`panel ${styles.list}`} aria-label="Visits">
        <header>
          <h2>Contract year</h2>
          <span className="note">{data.says}</span>
          {data.due.length > 0 && (
            <Button variant="contained" onClick={() => say(data.due, "done")}>
              {data.due.length === 1 ? "The one up to today was done" : `All ${data.due.length} up to today were done`}
            </Button>
          )}
        </header>
        {wrong && (
          <p className="pad error" role="alert">
            {wrong}
          </p>
        )}
        <div className={styles.tape} role="group" aria-label="Months of the contract year">
          {data.months.map((m) => (
            <button
              key={m.month}
              type="button"
              aria-pressed={month === m.month}
              aria-label={m.says}
              className={classes(m.isNow && styles.now)}
              onClick={() => setMonth(month === m.month ? null : m.month)}
            >
              <span>{m.name}</span>
              <small>{m.visits > 0 ? `${m.done} of ${m.visits}` : "none"}</small>
              <i aria-hidden="true">
                <b style={{ width: `${m.doneShare}%` }} />
                <em style={{ width: `${m.leftOutShare}%` }} />
              </i>
            </button>
          ))}
        </div>
        <p className={`pad note ${styles.shows}`}>
          Shown: {shows}.{" "}
          {month !== null && (
            <button type="button" className="link" onClick={() => setMonth(null)}>
              Show all of the year
            </button>
          )}
        </p>
        {rows.length === 0 ? (
          <p className="pad note">No visit lies in this month.</p>
        ) : (
          <table>
            <thead>
              <tr>
                <th scope="col">Day</th>
                <th scope="col">Visit</th>
                <th scope="col" className={styles.n}>
                  Allowed
                </th>
                <th scope="col" className={styles.n}>
                  Used
                </th>
                <th scope="col">How it stands</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.id} className={classes(styles[row.said], row.isLate && styles.late)}>
                  <th scope="row">
                    {row.words}
                    {row.moved && <small>was {row.moved}</small>}
                  </th>
                  <td>{row.name}</td>
                  <td className={styles.n}>{row.hours}</td>
                  <td className={styles.n}>{row.used}</td>
                  <td>
                    {row.stands}
                    {row.reason && <small>{row.reason}</small>}
                  </td>
                  <td className={styles.acts}>
                    {row.said === "open" ? (
                      <>
                        <Act does="Done" row={row} onPress={() => setAsking({ what: "done", row })} />
                        {data.isPlanned && (
                          <Act does="Move" row={row} onPress={() => setAsking({ what: "move", row })} />
                        )}
                        <Act does="Leave out" row={row} onPress={() => setAsking({ what: "leaveOut", row })} />
                      </>
                    ) : (
                      <Act
                        does="Take back"
                        row={row}
                        onPress={() => say([{ visit: row.id, kind: row.kind }], "open")}
                      />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <div className={styles.right}>
        <section className="panel" aria-label="What comes back">
          <header>
            <h2>What comes back</h2>
            <span className="note">billed before tax, in {data.currency}</span>
          </header>
          <MoneyRows rows={[]}>
            {data.kinds.map((kind) => (
              <MoneyRow
                key={kind.id}
                label={kind.name}
                detail={
                  <>
                    {kind.says}
                    <br />
                    {kind.each}
                    {kind.isEvent && (
                      <>
                        <br />
                        <button
                          type="button"
                          className="act"
                          aria-label={`It came: ${kind.name}`}
                          onClick={() => setAsking({ what: "came", kind })}
                        >
                          It came
                        </button>
                      </>
                    )}
                  </>
                }
              >
                <b>{kind.billed}</b>
              </MoneyRow>
            ))}
          </MoneyRows>
          <p className="pad note">
            The year is billed by months: Invoices. What is left out comes off in the month that closes it; what the
            customer leaves out too late is billed.
          </p>
        </section>
        {!data.isPlanned && open.length > 0 && (
          <section className="panel" aria-label="Not in the schedule yet">
            <p className="pad">
              The visits stand on the days that their rhythm gives. Laid out under <b>Schedule</b> they can be moved,
              crews see them on their days, and two jobs that ask too much of a crew show it.
            </p>
          </section>
        )}
        {open.length > 0 && (
          <section className="panel" aria-label="When it ends early">
            <p className="pad">
              <button type="button" className="act" onClick={() => setAsking("end")}>
                End the round early
              </button>{" "}
              <span className="note">what is not done is left out, and the year closes on what was</span>
            </p>
          </section>
        )}
      </div>
      {asking === "end" ? (
        <EndRound open={open} onClose={close} />
      ) : asking?.what === "done" ? (
        <SayDone
          data={data}
          title={`${asking.row.name}, ${asking.row.words}`}
          visit={{ visit: asking.row.id, kind: asking.row.kind }}
          day={asking.row.day < data.today ? asking.row.day : data.today}
          onClose={close}
        />
      ) : asking?.what === "came" ? (
        <SayDone
          data={data}
          title={asking.kind.name}
          visit={{ visit: "", kind: asking.kind.id }}
          day={data.today}
          onClose={close}
        />
      ) : asking?.what === "leaveOut" ? (
        <SayLeftOut row={asking.row} onClose={close} />
      ) : asking?.what === "move" ? (
        <MoveVisit row={asking.row} onClose={close} />
      ) : null}
    </div>
  );
}

function Act({ does, row, onPress }: { does: string; row: Row; onPress: () => void }) {
  return (
    <button type="button" className="act" aria-label={`${does}: ${row.name}, ${row.words}`} onClick={onPress}>
      {does}
    </button>
  );
}
