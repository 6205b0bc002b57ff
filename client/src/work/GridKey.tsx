import { useJob } from "../job/JobContext";
import styles from "./work.module.css";

/** The signs in the grid, and what the last copy or paste did. */
export function GridKey({ said }: { said: string }) {
  const [, { job }] = useJob();
  return (
    <footer className={styles.key} aria-label="Signs in the grid">
      <span>
        <i className="cell included">4.2</i> included
      </span>
      <span>
        <i className="cell excluded">excluded</i> stated, not priced
      </span>
      <span>
        <i className="cell alternate">alt 4.2</i> alternate
      </span>
      <span>
        <i className="cell none">·</i> none here
      </span>
      <span>
        <i className="cell nothing">0 ?</i> included, but of nothing
      </span>
      <span>
        <i className="cell included">
          4.2
          <b className="differs" />
        </i>{" "}
        differs from its item
      </span>
      {job.crew.setUp && <span>set-up and travel come on top</span>}
      <span role="status" className={styles.said}>
        {said}
      </span>
    </footer>
  );
}
