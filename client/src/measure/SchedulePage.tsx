import { counted } from "../controls/counted";
import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { newId } from "../api/client";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { TableUpload } from "./TableUpload";
import { BadRows, useTableIntake } from "./useTableIntake";
import { Check } from "../controls/Check";
import type { Schemas } from "../api/client";
import { Views } from "../controls/Views";
import { useView } from "../job/useView";
import { PricedRows } from "./PricedRows";
import { Choice } from "../controls/Choice";
import styles from "./measure.module.css";
import { askJob } from "../api/jobQueries";
import { read } from "../api/jobQueries";

type Row = Schemas["ScheduleRowView"];

const views = { compared: "Compared", priced: "Priced" };
type View = keyof typeof views;

/** The customer's schedule of quantities: beside our own takeoff, where rows that are more than 1 % apart are flagged; and priced, to be given back with its numbers. */
export function SchedulePage() {
  const [open, { job }] = useJob();
  const [view, setView] = useView<View>(job.id, "schedule", views, "compared");
  const [bringing, setBringing] = useState(false);
  const [only, setOnly] = useState(false);
  const { data } = useQuery(askJob.schedule(job));
  const isOpen = (r: Row) => !r.heading && (view === "priced" ? !r.amount : r.apart || !r.ours);
  const rows = data?.rows.filter((r) => !only || isOpen(r)) ?? [];
  return (
    <section className={`panel ${styles.schedule}`} aria-label="Schedule of quantities">
      <header>
        <h2>Schedule of quantities</h2>
        {data && data.rows.length > 0 && (
          <>
            <Views views={views} value={view} onChoose={setView} />
            <span className="note" role="status">
              {counted(data.rows.filter((r) => !r.heading).length, "row")}
              {view === "priced"
                ? ` · ${data.unpriced} without a price`
                : ` · ${data.apart} apart · ${data.open} not compared`}
            </span>
            <Check on={only} onTick={setOnly}>
              only what needs a look
            </Check>
            <button className="link" onClick={() => void open.tell({ type: "removeSchedule" })}>
              Take the schedule out
            </button>
          </>
        )}
        <button className="link" onClick={() => setBringing(!bringing)}>
          Bring in a table
        </button>
        <Link to={`/jobs/${job.id}/measure`}>Back to the places</Link>
      </header>
      {bringing && <BringInSchedule onDone={() => setBringing(false)} />}
      {data && data.rows.length === 0 && !bringing && (
        <div className={styles.empty}>
          <h2>No schedule yet</h2>
          <p>
            When a customer sends a schedule (number, wording, unit, quantity), bring it in here. Each row is held
            against something we measured or work; what differs by more than 1 % is flagged. With the work in its price,
            each row gets a unit price, and the schedule goes back with its own numbers.
          </p>
          <Button variant="contained" onClick={() => setBringing(true)}>
            Bring in a table
          </Button>
        </div>
      )}
      {data && rows.length > 0 && (
        <div className={styles.scroll}>
          {view === "priced" ? <PricedRows schedule={data} rows={rows} /> : <ComparedRows rows={rows} />}
        </div>
      )}
    </section>
  );
}

function ComparedRows({ rows }: { rows: readonly Row[] }) {
  const [open] = useJob();
  return (
    <table className="list">
      <thead>
        <tr>
          <th>Number</th>
          <th>Wording</th>
          <th className="n">Theirs</th>
          <th>Compared with</th>
          <th className="n">Ours</th>
          <th className="n">Difference</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.id} className={r.apart ? styles.apart : undefined}>
            <td>{r.number}</td>
            <td>{r.wording}</td>
            <td className="n">
              {!r.heading && (
                <>
                  {r.quantity} <i>{r.unit}</i>
                </>
              )}
            </td>
            <td>
              {r.heading ? null : r.sources.length === 0 ? (
                <span className="note">nothing of ours is counted in {r.unit}</span>
              ) : (
                <Choice
                  bare
                  label={`${r.number} ${r.wording} is compared with`}
                  value={r.source}
                  none={r.work.length > 0 ? "the work in its price" : "nothing yet"}
                  options={r.sources.map((s) => [s.source, s.label])}
                  onChoose={(source) => void open.tell({ type: "setScheduleItem", item: r.id, was: r.source, source })}
                />
              )}
            </td>
            <td className="n">{r.ours && <Figure figure={r.ours} label={`Ours, ${r.wording}`} />}</td>
            <td className="n">
              {r.difference && <Figure figure={r.difference} label={`Difference, ${r.wording}`} />}
              {r.percent && (
                <>
                  {" "}
                  <Figure figure={r.percent} label={`Difference in percent, ${r.wording}`} />
                </>
              )}
            </td>
            <td>
              {r.apart ? <span className="error">▲ apart</span> : r.ours ? <span className="note">agrees</span> : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function BringInSchedule({ onDone }: { onDone: () => void }) {
  const [open, { job }] = useJob();
  const [wrong, setWrong] = useState("");
  const intake = useTableIntake("schedule", async (body) => read.schedule(job.id, body));
  const { good, bad } = intake;

  async function take() {
    try {
      await open.send({
        type: "addSchedule",
        rows: good.map((r) => ({
          id: newId(),
          number: r.number,
          wording: r.wording,
          unit: r.unit,
          quantity: r.quantity,
        })),
      });
      onDone();
    } catch (refused) {
      setWrong((refused as Error).message);
    }
  }

  return (
    <div className={`${styles.bringin} pad`}>
      <TableUpload {...intake.upload} />
      {intake.error && <p className="error">{intake.error.message}</p>}
      {intake.read && (
        <>
          <p role="status">
            <b>{counted(good.length, "row")} can be read</b>
            {bad.length > 0 && <span className="error"> · {bad.length} cannot</span>}
          </p>
          <BadRows rows={bad} />
          {intake.leaveOut}
          <p>
            <Button variant="contained" disabled={!intake.ready} onClick={() => void take()}>
              Add {counted(good.length, "row")}
            </Button>
          </p>
        </>
      )}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
