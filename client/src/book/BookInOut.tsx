import { counted } from "../controls/counted";
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Schemas, sendFile } from "../api/client";
import { TableUpload } from "../measure/TableUpload";
import { bookChanged } from "./useEntry";
import { Check } from "../controls/Check";
import { FileChoice } from "../controls/FileChoice";
import measure from "../measure/measure.module.css";
import styles from "./book.module.css";
import { change } from "../api/changes";
import { read as reads } from "../api/jobQueries";

type Incoming = Schemas["IncomingView"];
type Source = { table: Schemas["TableView"]; mapping: Record<string, number> } | { file: File };

/** The Book out to tables and its file, and in again: what would change is shown first, and taken whole or not at all. */
export function BookInOut({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const [source, setSource] = useState<Source | null>(null);
  const [leaveOut, setLeaveOut] = useState(false);
  const read = useMutation({
    mutationFn: async (from: Source): Promise<Incoming> =>
      "file" in from ? await sendFile<Incoming>("/api/book/read-file", from.file) : await reads.bookTable(mapped(from)),
  });
  const take = useMutation({
    mutationFn: async (from: Source) =>
      "file" in from
        ? await change.takeBookFile(from.file, leaveOut)
        : await change.takeBookTable({ table: mapped(from), leaveOut }),
    onSuccess: () => bookChanged(queries),
  });
  const choose = (from: Source) => {
    setSource(from);
    setLeaveOut(false);
    take.reset();
    read.mutate(from);
  };
  const found = read.data;
  const wrong = found?.rows.filter((r) => r.wrong !== null) ?? [];
  const telling = found?.rows.filter((r) => r.wrong === null) ?? [];
  const does = (found?.new ?? 0) + (found?.changed ?? 0);
  return (
    <Dialog open onClose={onClose} aria-labelledby="inout-title" fullWidth maxWidth="lg">
      <DialogTitle id="inout-title">The Book in and out</DialogTitle>
      <DialogContent className={measure.bringin}>
        <p className={measure.outs}>
          Take the whole Book out:{" "}
          <a href="/api/book/book.xlsx" download>
            workbook (.xlsx)
          </a>
          ,{" "}
          <a href="/api/book/book.csv" download>
            text (.csv)
          </a>{" "}
          or{" "}
          <a href="/api/book/book.json" download>
            Book file (.json)
          </a>
          . What goes out comes in again without loss.
        </p>
        <FileChoice label="A Book file (.json)" accept=".json,application/json" onFile={(file) => choose({ file })} />
        <TableUpload
          purpose="book"
          table={source && "table" in source ? source.table : null}
          mapping={source && "table" in source ? source.mapping : {}}
          onTable={(table) => choose({ table, mapping: table.mapping })}
          onMapping={(mapping) => source && "table" in source && choose({ table: source.table, mapping })}
        />
        {read.isPending && <p role="status">Reading…</p>}
        {read.error && <p className="error">{read.error.message}</p>}
        {take.data && (
          <p role="status">
            <b>
              {take.data.new} new, {take.data.changed} changed.
            </b>{" "}
            Every change is a new version of its entry.
          </p>
        )}
        {found && !take.data && (
          <>
            <p role="status">
              <b>
                {found.new} new, {found.changed} changed, {found.same} the same
              </b>
              {found.wrong > 0 && <span className="error"> · {counted(found.wrong, "row")} cannot be read</span>}
            </p>
            {wrong.length > 0 && (
              <ul className={measure.badrows} aria-label="Rows that cannot be read">
                {wrong.map((r) => (
                  <li key={r.row}>
                    Row {r.row}: {r.name && `${r.name}: `}
                    {r.wrong}
                  </li>
                ))}
              </ul>
            )}
            <table className="list preview" aria-label="What would change">
              <thead>
                <tr>
                  <th>Row</th>
                  <th>Entry</th>
                  <th>Kind</th>
                  <th>What it does</th>
                </tr>
              </thead>
              <tbody>
                {telling.slice(0, 60).map((r) => (
                  <tr key={r.row}>
                    <td>{r.row}</td>
                    <td>{r.name}</td>
                    <td>{r.kind}</td>
                    <td>
                      {r.isNew
                        ? "new"
                        : r.differences.map((d) => (
                            <span key={d.field} className={styles.difference}>
                              {d.field}: <del>{d.was || "nothing"}</del> → {d.now || "nothing"}
                            </span>
                          ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {found.wrong > 0 && (
              <Check on={leaveOut} onTick={setLeaveOut}>
                Leave out the {counted(found.wrong, "row")} that cannot be read
              </Check>
            )}
          </>
        )}
        {take.error && (
          <p className="error" role="alert">
            {take.error.message}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button
          variant="contained"
          disabled={
            !source ||
            !found ||
            take.isPending ||
            take.data !== undefined ||
            does === 0 ||
            (found.wrong > 0 && !leaveOut)
          }
          onClick={() => source && take.mutate(source)}
        >
          {take.isPending ? "Taking…" : `Take ${counted(does, "entry", "entries")}`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

const mapped = (from: { table: Schemas["TableView"]; mapping: Record<string, number> }) => ({
  columns: from.table.columns,
  rows: from.table.rows,
  mapping: from.mapping,
});
