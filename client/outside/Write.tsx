import { useId, useState } from "react";
import styles from "./customer.module.css";
import type { Says } from "./link";

interface Props {
  label: string;
  note: string;
  /** Words of the button. */
  act: string;
  /** What is said when it is done. */
  said?: string;
  /** Whether something has to be written. */
  needed?: boolean;
  /** Whether it is begun at once. */
  focus?: boolean;
  onSay: (says: Says) => Promise<unknown>;
}

const most = 2000;

/** Some lines to be sent. What is refused stays in its place, and is sent under the same id again. */
export function Write(props: Props) {
  const id = useId();
  const [words, setWords] = useState("");
  const [of, setOf] = useState(() => crypto.randomUUID());
  const [going, setGoing] = useState(false);
  const [wrong, setWrong] = useState("");
  const [done, setDone] = useState(false);
  const send = async () => {
    if (props.needed && words.trim() === "") return setWrong("Write something first.");
    setGoing(true);
    setWrong("");
    try {
      await props.onSay({ id: of, words });
      setWords("");
      setOf(crypto.randomUUID());
      setDone(true);
    } catch (error) {
      setWrong((error as Error).message);
    }
    setGoing(false);
  };
  return (
    <form
      className={styles.write}
      onSubmit={(e) => {
        e.preventDefault();
        if (!going) void send();
      }}
    >
      <label htmlFor={id}>{props.label}</label>
      <textarea
        id={id}
        rows={4}
        maxLength={most}
        autoFocus={props.focus}
        value={words}
        aria-invalid={wrong !== "" || undefined}
        aria-describedby={`${id}says`}
        onChange={(e) => {
          setWords(e.target.value);
          setDone(false);
        }}
      />
      <small id={`${id}says`} className={wrong ? styles.wrong : undefined} role={wrong ? "alert" : undefined}>
        {wrong || props.note}
      </small>
      <div>
        <button type="submit" className={styles.act} disabled={going}>
          {going ? "Sending…" : props.act}
        </button>
        <span role="status">{done ? props.said : ""}</span>
      </div>
    </form>
  );
}
