import { type ReactNode, useState } from "react";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import styles from "./price.module.css";

/** A column of a list of terms: what is typed in it, and how it stands in a row. */
export interface Column<T> {
  label: string;
  unit?: string;
  wide?: boolean;
  text: (row: T) => string;
  /** The row with what was typed. */
  with: (row: T, text: string) => T;
}

interface Props<T> {
  /** What one row is called. */
  one: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  blank: T;
  /** What else stands in a row. */
  more?: (row: T, set: (row: T) => Promise<void>) => ReactNode;
  onSave: (rows: T[]) => Promise<void>;
}

/** A short list of terms: each row saves by itself, a new one when it is added. */
export function Rows<T>({ one, rows, columns, blank, more, onSave }: Props<T>) {
  const [draft, setDraft] = useState<T | null>(null);
  const [wrong, setWrong] = useState("");
  const at = (index: number, row: T) => rows.map((r, i) => (i === index ? row : r));
  async function add() {
    try {
      await onSave([...rows, draft as T]);
      setDraft(null);
      setWrong("");
    } catch (error) {
      setWrong((error as Error).message);
    }
  }
  return (
    <div className={styles.terms} role="group" aria-label={`Each ${one}`}>
      {rows.map((row, i) => (
        <div key={i} className={styles.term}>
          {columns.map((column) => (
            <Field
              key={column.label}
              label={`${column.label}, ${one} ${i + 1}`}
              bare
              unit={column.unit}
              value={column.text(row)}
              onKeep={(text) => onSave(at(i, column.with(row, text.trim())))}
            />
          ))}
          <button
            type="button"
            className="act"
            aria-label={`Remove ${one} ${i + 1}`}
            onClick={() => void onSave(rows.filter((_, n) => n !== i)).catch((e: Error) => setWrong(e.message))}
          >
            Remove
          </button>
          {more && <div className={styles.more}>{more(row, (now) => onSave(at(i, now)))}</div>}
        </div>
      ))}
      {draft !== null && (
        <form
          className={styles.term}
          onSubmit={(e) => {
            e.preventDefault();
            void add();
          }}
        >
          {columns.map((column, i) => (
            <Input
              key={column.label}
              label={`${column.label}, new ${one}`}
              placeholder={column.label}
              bare
              focus={i === 0}
              unit={column.unit}
              value={column.text(draft)}
              onType={(text) => setDraft(column.with(draft, text))}
              onKeyDown={(e) => {
                if (e.key === "Escape") setDraft(null);
              }}
            />
          ))}
          <button type="submit" className="act">
            Add it
          </button>
        </form>
      )}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      {draft === null && (
        <button type="button" className="act" onClick={() => setDraft(blank)}>
          Add a {one}
        </button>
      )}
    </div>
  );
}
