import { useState } from "react";
import type { Schemas } from "../api/client";
import { Ask } from "../controls/Ask";
import { counted } from "../controls/counted";
import { Choice } from "../controls/Choice";
import { useTold } from "../controls/useTold";
import { Figure, RowFigure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./measure.module.css";

type Row = Schemas["ScheduleRowView"];
type Work = Schemas["ScheduleWork"];

/** The customer's schedule with the work in the price of each row; what the price has beside it, and its sums, below. */
export function PricedRows({ schedule, rows }: { schedule: Schemas["ScheduleView"]; rows: readonly Row[] }) {
  const [open, { job }] = useJob();
  const [writing, setWriting] = useState<string | null>(null);
  const [wrong, tell] = useTold();
  const asks = schedule.rows.find((r) => r.id === writing);
  return (
    <>
      <p className={`note ${styles.intro}`}>
        A unit price is the price of the work in a row by the customer&apos;s quantity, in whole cents; what is in no
        row is priced beside them.
        {schedule.asCompared > 0 && (
          <button type="button" className="act" onClick={() => tell(open.send({ type: "priceAsCompared" }))}>
            Price {counted(schedule.asCompared, "row")} by the work compared with
          </button>
        )}
        <a href={`/api/jobs/${job.id}/schedule.xlsx`} download={`Schedule ${job.info.number}.xlsx`}>
          Priced schedule (XLSX)
        </a>
      </p>
      {wrong && (
        <p className="error pad" role="alert">
          {wrong}
        </p>
      )}
      <table className="list">
        <thead>
          <tr>
            <th>Number</th>
            <th>Wording</th>
            <th className="n">Quantity</th>
            <th>Work in its price</th>
            <th className="n">Unit price</th>
            <th className="n">Amount, {schedule.currency}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) =>
            r.heading ? (
              <tr key={r.id} className={styles.heading}>
                <td>{r.number}</td>
                <td colSpan={5}>{r.wording}</td>
              </tr>
            ) : (
              <tr key={r.id} className={r.amount ? undefined : styles.apart}>
                <td>{r.number}</td>
                <td>{r.wording}</td>
                <td className="n">
                  {r.quantity} <i>{r.unit}</i>
                </td>
                <td>
                  <button
                    type="button"
                    className="act"
                    aria-label={`Work in the price of ${r.number} ${r.wording}: ${r.work.map((w) => w.label).join(", ") || "none yet"}`}
                    onClick={() => setWriting(r.id)}
                  >
                    {r.work.map((w) => w.label).join(", ") || "Say which"}
                  </button>
                  {r.work.some((w) => w.gone) && (
                    <small className="error"> ▲ {r.work.find((w) => w.gone)!.label}: not in the price</small>
                  )}
                </td>
                <td className="n">
                  {r.unitPrice && <Figure figure={r.unitPrice} label={`Unit price, ${r.wording}`} />}
                </td>
                <td className="n">
                  {r.amount ? (
                    <Figure figure={r.amount} label={`Amount, ${r.wording}`} />
                  ) : (
                    <span className="note">not included</span>
                  )}
                </td>
              </tr>
            ),
          )}
        </tbody>
        <tbody className={styles.beside}>
          {schedule.beside.map((row, i) => (
            <tr key={i} className={row.amount === null ? styles.heading : styles[row.kind]}>
              <td />
              <td colSpan={4}>
                {row.label} {row.detail && <span className="note">{row.detail}</span>}
              </td>
              <td className="n">{row.amount !== null && <RowFigure row={row} />}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {asks && <WorkInPrice row={asks} onClose={() => setWriting(null)} />}
    </>
  );
}

/** Where work stands, as a value of the list. */
const everywhere = "everywhere";

function WorkInPrice({ row, onClose }: { row: Row; onClose: () => void }) {
  const [open, { job }] = useJob();
  const [work, setWork] = useState("");
  const [where, setWhere] = useState(everywhere);
  const [wrong, tell] = useTold();
  const was = row.work.map((w) => w.of);
  const save = (now: Work[]) => open.send({ type: "setScheduleWork", item: row.id, was, now });
  const groups = [...new Set(job.places.map((p) => p.group).filter(Boolean))];
  async function add() {
    if (work === "") throw new Error("Choose the work first.");
    await save([
      ...was,
      {
        work,
        group: where.startsWith("group/") ? where.slice("group/".length) : "",
        place: where.startsWith("place/") ? where.slice("place/".length) : null,
      },
    ]);
    setWork("");
    setWhere(everywhere);
  }
  return (
    <Ask title={`Work in the price of ${row.number || row.wording}`} onClose={onClose}>
      <p className="note">
        {row.wording}, {row.quantity} {row.unit}. Each piece of work is in one row: that which names it at a place, else
        under a heading, else everywhere.
      </p>
      <ul className={styles.pieces} aria-label="Work in its price">
        {row.work.map((piece, at) => (
          <li key={at}>
            {piece.label}
            {piece.gone && <small className="error"> not in the price, or nowhere</small>}
            <button
              type="button"
              className="act"
              aria-label={`Take ${piece.label} out`}
              onClick={() => tell(save(was.filter((_, i) => i !== at)))}
            >
              Take out
            </button>
          </li>
        ))}
        {row.work.length === 0 && <li className="note">None yet: this row would go back as “not included”.</li>}
      </ul>
      <Choice
        label="Work"
        value={work}
        none="choose"
        focus
        options={job.work.map((w) => [w.id, w.name, job.sections.find((s) => s.id === w.section)?.name])}
        onChoose={setWork}
      />
      <Choice
        label="Where"
        value={where}
        options={[
          [everywhere, "everywhere that is in no other row"] as const,
          ...groups.map((g) => [`group/${g}`, g, "Headings"] as const),
          ...job.places.map((p) => [`place/${p.id}`, p.name, "Places"] as const),
        ]}
        onChoose={setWhere}
      />
      {/* It can always be pressed: what has the focus and cannot be pressed any more loses it, and the keys with it. */}
      <button type="button" className="act" onClick={() => tell(add())}>
        Put it in the price
      </button>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </Ask>
  );
}
