import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useState } from "react";
import { api, newId } from "../api/client";
import { useJob, useSaving } from "../job/JobContext";
import { TableUpload } from "./TableUpload";
import { BadRows, useTableIntake } from "./useTableIntake";

/** Places from a table, and out to one. What comes in is shown row by row first; it is taken as one edit or not at all. */
export function BringInPlaces({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const saving = useSaving();
  const [wrong, setWrong] = useState("");
  const intake = useTableIntake(
    "places",
    async (body) =>
      (await api.POST("/api/jobs/{id}/places/read-table", { params: { path: { id: job.id } }, body })).data!,
  );
  const { good, bad } = intake;

  async function take() {
    try {
      await open.send({
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
      onClose();
    } catch (refused) {
      setWrong((refused as Error).message);
    }
  }

  return (
    <Dialog open onClose={onClose} aria-labelledby="tables-title" fullWidth maxWidth="lg">
      <DialogTitle id="tables-title">Places in and out</DialogTitle>
      <DialogContent className="bringin">
        <p className="outs">
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
              <b>{good.length} places can be read</b>
              {bad.length > 0 && <span className="error"> · {bad.length} rows cannot</span>}
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
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button variant="contained" disabled={!intake.ready || saving} onClick={() => void take()}>
          {saving ? "Adding…" : `Add ${good.length} places`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
