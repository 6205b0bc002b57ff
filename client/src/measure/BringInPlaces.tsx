import { counted } from "../controls/counted";
import { newId } from "../api/client";
import { useJob } from "../job/JobContext";
import { TableUpload } from "./TableUpload";
import { BadRows, useTableIntake } from "./useTableIntake";
import styles from "./measure.module.css";
import { read } from "../api/jobQueries";
import { Ask } from "../controls/Ask";

/** Places from a table, and out to one. What comes in is shown row by row first; it is taken as one edit or not at all. */
export function BringInPlaces({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const intake = useTableIntake("places", async (body) => read.places(job.id, body));
  const { good, bad } = intake;

  const take = () =>
    open.send({
      type: "addPlaces",
      places: good.map((r) => ({
        place: newId(),
        line: r.line,
        group: r.group,
        finish: r.finish,
        notes: r.notes,
        typed: r.typed,
        work: [],
      })),
      work: [],
    });

  return (
    <Ask
      title="Places in and out"
      apply={`Add ${counted(good.length, "place")}`}
      busy="Adding…"
      ready={intake.ready}
      width="lg"
      className={styles.bringin}
      onApply={take}
      onClose={onClose}
    >
      <p className={styles.outs}>
        Take out all places with their measures:{" "}
        <a href={`/api/jobs/${job.id}/places.xlsx`} download>
          workbook (.xlsx)
        </a>{" "}
        or{" "}
        <a href={`/api/jobs/${job.id}/places.csv`} download>
          text (.csv)
        </a>
        . What goes out comes in again without loss.
      </p>
      <TableUpload {...intake.upload} />
      {intake.error && <p className="error">{intake.error.message}</p>}
      {intake.read && (
        <>
          <p role="status">
            <b>{counted(good.length, "place")} can be read</b>
            {bad.length > 0 && <span className="error"> · {counted(bad.length, "row")} cannot</span>}
          </p>
          <BadRows rows={bad} />
          <table className="list preview" aria-label="Preview">
            <thead>
              <tr>
                <th>Row</th>
                <th>Heading</th>
                <th>Tape line</th>
                <th>Reads as</th>
              </tr>
            </thead>
            <tbody>
              {good.slice(0, 8).map((r) => (
                <tr key={r.row}>
                  <td>{r.row}</td>
                  <td>{r.group}</td>
                  <td>{r.line}</td>
                  <td className="note">{r.words}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {good.length > 8 && <p className="note">and {good.length - 8} more</p>}
          {intake.leaveOut}
        </>
      )}
    </Ask>
  );
}
