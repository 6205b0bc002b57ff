import { useId, useState } from "react";
import { type Schemas, sendFile } from "../api/client";
import { Choice } from "../controls/Choice";
import { FileChoice } from "../controls/FileChoice";
import styles from "./measure.module.css";

type Table = Schemas["TableView"];

interface Props {
  purpose: "places" | "schedule" | "choices" | "book";
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
      <FileChoice
        label="A CSV or .xlsx file, headings in its first row"
        accept=".csv,.txt,.tsv,.xlsx"
        says={`${id}says`}
        onFile={(chosen) => {
          setFile(chosen);
          void read(chosen, 0);
        }}
      />
      <span id={`${id}says`} role="status" className={state.wrong ? "error" : "note"}>
        {state.busy ? "Reading…" : state.wrong}
      </span>
      {table && table.sheets.length > 1 && (
        <Choice
          label="Sheet"
          value={String(table.sheet)}
          options={table.sheets.map((s, i) => [String(i), s])}
          onChoose={(sheet) => file && void read(file, Number(sheet))}
        />
      )}
      {table && (
        <fieldset className={styles.mapping}>
          <legend>
            Which column is what{" "}
            <span className="note">
              {table.remembered ? "as last time for these headings" : "guessed from the headings"}
            </span>
          </legend>
          {table.fields.map((f) => (
            <Choice
              key={f.field}
              label={f.heading}
              value={String(mapping[f.field] ?? -1)}
              options={[["-1", "—"], ...table.columns.map((c, i) => [String(i), c || `column ${i + 1}`] as const)]}
              onChoose={(column) => onMapping({ ...mapping, [f.field]: Number(column) })}
            />
          ))}
        </fieldset>
      )}
    </>
  );
}
