import { useJob } from "../job/JobContext";
import { inWords } from "../job/outbox";
import styles from "./Left.module.css";

/** Edits that had no answer before the page was loaded and were refused when they were sent again: what was typed, and why it was not taken. */
export function Left() {
  const [open, { refused }] = useJob();
  if (refused.length === 0) return null;
  return (
    <section className={styles.left} aria-label="Not taken">
      <ul>
        {refused.map((one) => (
          <li key={one.order}>
            <span>
              Typed before the page was loaded, and not taken: <b>{inWords(one.command)}</b>. {one.refused}
            </span>
            <button className="plain" onClick={() => void open.forget(one.order)}>
              Forget it
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
