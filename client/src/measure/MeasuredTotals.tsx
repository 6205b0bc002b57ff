import { useQuery } from "@tanstack/react-query";
import { askJob } from "../api/jobQueries";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./measure.module.css";

/** What all places of the job come to, and those under each heading. */
export function MeasuredTotals() {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.measured(job));
  return (
    <div className={styles.scroll} tabIndex={0} role="group" aria-label="Figures of the whole job">
      {data?.map((of) => (
        <section key={of.heading} aria-label={of.heading || "Whole job"}>
          <h3 className={styles.heading}>{of.heading || "Whole job"}</h3>
          <ul className="rows">
            {of.totals.map((total) => (
              <li key={total.name}>
                <span>{total.label}</span>
                <Figure figure={total.figure} label={`${total.label}, ${of.heading || "whole job"}`} />
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
