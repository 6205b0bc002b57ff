import { useId, useState } from "react";
import { type Schemas, sendFile } from "../api/client";

type Table = Schemas["TableView"];

interface Props {
  purpose: "places" | "schedule" | "book";
  table: Table | null;
  mapping: Record<string, number>;
  onTable: (table: Table) => void;
  onMapping: (mapping: Record<string, number>) => void;
}

/** Takes a CSV or .xlsx file, and says which of its columns is what. A mapping used before for the same headings comes back. */
export function TableUpload({ purpose, table, mapping, onTable, onMapping }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const [state, setState] = useState<{ busy: boolean; wrong: string }>({ busy: false, wrong: "" });
  const id = useId();

  async function read(chosen: File, sheet: number) {
    setState({ busy: true, wrong: "" });
    try {
      onTable(await sendFile<Table>(`/api/tables/${purpose}?sheet=${sheet}`, chosen));
      setState({ busy: false, wrong: "" });
    } catch (error) {
      setState({ busy: false, wrong: (error as Error).message });
    }
  }

  return (
    <>
      <label className="field" htmlFor={`${id}file`}>
        A CSV or .xlsx file, headings in its first row
      </label>
      <input
        id={`${id}file`}
        type="file"
        accept=".csv,.txt,.tsv,.xlsx"
        aria-describedby={`${id}says`}
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          if (!chosen) return;
          setFile(chosen);
          void read(chosen, 0);
        }}
      />
      <span id={`${id}says`} role="status" className={state.wrong ? "error" : "note"}>
        {state.busy ? "Reading…" : state.wrong}
      </span>
      {table && table.sheets.length > 1 && (
        <label className="field">
          <span>Sheet</span>
          <select value={table.sheet} onChange={(e) => file && void read(file, Number(e.target.value))}>
            {table.sheets.map((s, i) => (
              <option key={s} value={i}>
                {s}
              </option>
            ))}
          </select>
        </label>
      )}
      {table && (
        <fieldset className="mapping">
          <legend>
            Which column is what{" "}
            <span className="note">
              {table.remembered ? "as last time for these headings" : "guessed from the headings"}
            </span>
          </legend>
          {table.fields.map((f) => (
            <label key={f.field}>
              {f.heading}
              <select
                value={mapping[f.field] ?? -1}
                onChange={(e) => onMapping({ ...mapping, [f.field]: Number(e.target.value) })}
              >
                <option value={-1}>—</option>
                {table.columns.map((c, i) => (
                  <option key={i} value={i}>
                    {c || `column ${i + 1}`}
                  </option>
                ))}
              </select>
            </label>
          ))}
        </fieldset>
      )}
    </>
  );
}
