import { useId, useRef, useState } from "react";

interface Props {
  label: string;
  value: string;
  /** Sends what was typed; rejects with what the server says of it. */
  onKeep: (text: string) => Promise<void>;
  hint?: string;
  unit?: string;
  rows?: number;
  /** One sentence over several rows: Enter keeps it. */
  sentence?: boolean;
  focus?: boolean;
}

/** A field that saves by itself: Enter or leaving keeps it, Esc backs out. A refusal stands beside it and what was typed stays. */
export function Field({ label, value, onKeep, hint, unit, rows, sentence, focus }: Props) {
  const [text, setText] = useState(value);
  const [wrong, setWrong] = useState("");
  const id = useId();
  // What is on its way or was taken. Enter sends it; when the field then makes room for one with the new value, it is left once more, and nothing is to be sent again.
  const sent = useRef<string | null>(null);
  async function keep() {
    if (text === value) return setWrong("");
    if (text === sent.current) return;
    sent.current = text;
    try {
      await onKeep(text);
      setWrong("");
    } catch (error) {
      sent.current = null;
      setWrong((error as Error).message);
    }
  }
  const common = {
    id,
    value: text,
    autoFocus: focus,
    "aria-invalid": wrong !== "",
    "aria-describedby": wrong || hint ? `${id}says` : undefined,
    onBlur: () => void keep(),
  };
  return (
    <div className={unit ? "field inline" : "field"}>
      <label htmlFor={id}>{label}</label>
      <span className="box">
        {rows ? (
          <textarea
            {...common}
            rows={rows}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Escape") setText(value);
              if (e.key !== "Enter" || !sentence) return;
              e.preventDefault();
              void keep();
            }}
          />
        ) : (
          <input
            {...common}
            autoComplete="off"
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Enter") void keep();
              if (e.key === "Escape") {
                setText(value);
                setWrong("");
              }
            }}
          />
        )}
        {unit && <i>{unit}</i>}
      </span>
      {(wrong || hint) && (
        <span id={`${id}says`} className={wrong ? "error" : "note"} role={wrong ? "alert" : undefined}>
          {wrong || hint}
        </span>
      )}
    </div>
  );
}
