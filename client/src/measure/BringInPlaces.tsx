import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Refused, type Schemas, api, newId } from "../api/client";
import { useJob } from "../job/JobContext";
import { TableUpload } from "./TableUpload";

/** Places from a table, and out to one. What comes in is shown row by row first; it is taken as one edit or not at all. */
export function BringInPlaces({ onClose }: { onClose: () => void }) {
  const [open, { job, saving }] = useJob();
  const [table, setTable] = useState<Schemas["TableView"] | null>(null);
  const [mapping, setMapping] = useState<Record<string, number>>({});
  const [leaveOut, setLeaveOut] = useState(false);
  const [wrong, setWrong] = useState("");
  const { data, error, isFetching } = useQuery({
    queryKey: ["read-places", job.id, job.units, table, mapping],
    queryFn: async () =>
      (
        await api.POST("/api/jobs/{id}/places/read-table", {
          params: { path: { id: job.id } },
          body: { columns: table!.columns, rows: table!.rows, mapping },
        })
      ).data!,
    enabled: table !== null,
    staleTime: Infinity,
    retry: false,
  });
  const bad = data?.rows.filter((r) => r.wrong !== null) ?? [];
  const good = data?.rows.filter((r) => r.wrong === null) ?? [];
  const ready = good.length > 0 && (bad.length === 0 || leaveOut) && !isFetching && !saving;

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
        <TableUpload
          purpose="places"
          table={table}
          mapping={mapping}
          onTable={(t) => {
            setTable(t);
            setMapping(t.mapping);
            setLeaveOut(false);
          }}
          onMapping={setMapping}
        />
        {error && <p className="error">{(error as Refused).message}</p>}
        {data && (
          <>
            <p role="status">
              <b>{good.length} places can be read</b>
              {bad.length > 0 && <span className="error"> · {bad.length} rows cannot</span>}
            </p>
            {bad.length > 0 && (
              <ul className="badrows" aria-label="Rows that cannot be read">
                {bad.slice(0, 100).map((r) => (
                  <li key={r.row}>
                    Row {r.row}: {r.wrong} <code>{r.line}</code>
                  </li>
                ))}
              </ul>
            )}
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
            {bad.length > 0 && (
              <label className="leaveout">
                <input type="checkbox" checked={leaveOut} onChange={(e) => setLeaveOut(e.target.checked)} /> Leave out
                the {bad.length} rows that cannot be read
              </label>
            )}
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
        <Button variant="contained" disabled={!ready} onClick={() => void take()}>
          {saving ? "Adding…" : `Add ${good.length} places`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
