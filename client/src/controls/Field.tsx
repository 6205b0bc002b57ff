import { useId, useState } from "react";
import { Says } from "./Says";
import styles from "./field.module.css";

interface Props {
  label: string;
  value: string;
  /** Sends what was typed; rejects with what the server says of it. */
  onKeep: (text: string) => Promise<void>;
  hint?: string;
  unit?: string;
  /** Its label beside it, where many stand under each other. */
  row?: boolean;
  /** Where the place says what it is: the label is only read out. */
  bare?: boolean;
  rows?: number;
  /** One sentence over several rows: Enter keeps it. */
  sentence?: boolean;
  focus?: boolean;
  /** What can be chosen from while typing. */
  list?: readonly string[];
  /** What was refused when it was last here. */
  left?: Left | null;
  /** Keeps what is refused, so that it is there when one comes back; null where nothing is. */
  onLeft?: (left: Left | null) => void;
}

/** Something typed that was refused, and what was said of it. */
export interface Left {
  text: string;
  wrong: string;
}

/**
 * A field that saves by itself: Enter or leaving keeps it, Esc backs out. A refusal stands beside it and what was typed stays. When somebody else
 * changes the value while one types, both are said, and only Enter puts one's own in its place.
 */
export function Field({
  label,
  value,
  onKeep,
  hint,
  unit,
  row,
  bare,
  rows,
  sentence,
  focus,
  list,
  left,
  onLeft,
}: Props) {
  const [text, setText] = useState(left?.text ?? value);
  /** What stood there when it was last looked at. */
  const [seen, setSeen] = useState(value);
  const [wrong, setWrong] = useState(left?.wrong ?? "");
  // What is on its way or was taken: Enter sends it, and when the field is left afterwards nothing is to be sent again.
  const [sent, setSent] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const id = useId();

  const ours = sent !== null && value === sent.trim();
  if (value !== seen && !sending && (text === seen || text === value || text === sent || ours)) {
    // What is typed on after one's own was taken stays.
    if (text === seen || text === sent) setText(value);
    setSeen(value);
    setSent(null);
  }
  const overtaken = value !== seen && !sending && text !== value;

  async function keep() {
    if (text === value) return setWrong("");
    if (text === sent) return;
    setSent(text);
    setSending(true);
    try {
      await onKeep(text);
      setWrong("");
      onLeft?.(null);
    } catch (error) {
      setSent(null);
      setWrong((error as Error).message);
      onLeft?.({ text, wrong: (error as Error).message });
    }
    setSending(false);
  }
  function keepMine() {
    setSeen(value);
    void keep();
  }
  function back() {
    setText(value);
    setSeen(value);
    setWrong("");
    onLeft?.(null);
  }
  const says = overtaken
    ? `It has been changed to “${value}” meanwhile. Enter puts yours in its place, Esc takes theirs.`
    : wrong;
  const common = {
    id,
    className: styles.entry,
    value: text,
    autoFocus: focus,
    "aria-invalid": says !== "",
    "aria-describedby": says || hint ? `${id}says` : undefined,
    onBlur: () => {
      if (!overtaken) void keep();
    },
  };
  return (
    <div className={[styles.field, row && styles.row, bare && styles.bare].filter(Boolean).join(" ")}>
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <span className={styles.box}>
        {rows ? (
          <textarea
            {...common}
            rows={rows}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Escape") back();
              if (e.key !== "Enter" || !(sentence || overtaken)) return;
              e.preventDefault();
              keepMine();
            }}
          />
        ) : (
          <input
            {...common}
            autoComplete="off"
            list={list && `${id}list`}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Enter") keepMine();
              if (e.key === "Escape") back();
            }}
          />
        )}
        {unit && <i className={styles.unit}>{unit}</i>}
      </span>
      {list && (
        <datalist id={`${id}list`}>
          {list.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
      <Says id={id} wrong={says} hint={hint} />
    </div>
  );
}
