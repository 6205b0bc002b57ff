import type { Refused } from "./answered";
import styles from "./notHere.module.css";

/** What stands where a page would: that it is on its way, or why it is not there. */
export function NotHere({ wrong, onAgain }: { wrong: Refused | null; onAgain: () => void }) {
  return (
    <main className={styles.alone} aria-busy={!wrong}>
      {wrong && (
        <>
          <h1>
            {wrong.status === 410 ? "This link has ended" : wrong.status === 404 ? "Nothing here" : "Not just now"}
          </h1>
          <p role="alert">{wrong.message}</p>
          {wrong.status !== 404 && wrong.status !== 410 && (
            <button type="button" className={styles.again} onClick={onAgain}>
              Try again
            </button>
          )}
        </>
      )}
    </main>
  );
}
