import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { askJob } from "../api/jobQueries";
import { Views } from "../controls/Views";
import { useJob } from "../job/JobContext";
import { useView } from "../job/useView";
import { Buying } from "./Buying";
import { Changes } from "./Changes";
import styles from "./deliver.module.css";
import { HoursUsed } from "./HoursUsed";
import { Invoices } from "./Invoices";
import { Schedule } from "./Schedule";
import { Visits } from "./Visits";
import { WorkOrder } from "./WorkOrder";

const views = {
  order: "Work order",
  changes: "Changes",
  buying: "Buying",
  visits: "Visits",
  schedule: "Schedule",
  invoices: "Invoices",
  hours: "Hours used",
};

/** Those of a job of which nothing comes back. */
const withoutVisits = Object.fromEntries(Object.entries(views).filter(([view]) => view !== "visits")) as typeof views;

/** The Deliver station: from the yes on. */
export function DeliverPage() {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.deliver(job));
  const { data: round } = useQuery(askJob.visits(job));
  const [chosen, setView] = useView<keyof typeof views>(job.id, "deliver", views, "order");
  if (!data) return <div aria-busy="true" aria-label="Opening the station" />;
  if (!data.order)
    return (
      <section className={`panel ${styles.nothing}`} aria-label="Nothing to deliver yet">
        <h2>Nothing was accepted yet</h2>
        <p>
          With the yes this becomes the work order of the crew: what is done where, the hours allowed, goods and notes,
          and never a price. Crews tick what is done on their own page and write their hours, and those stand here
          against the estimate.
        </p>
        <p>
          <Link to={`/jobs/${job.id}/proposal`}>Send the proposal</Link>, or record a yes that came on paper or by word
          under its revisions.
        </p>
      </section>
    );
  const view = chosen === "visits" && !round ? "order" : chosen;
  return (
    <div className={styles.station}>
      <div className={styles.bar}>
        <Views<keyof typeof views> views={round ? views : withoutVisits} value={view} onChoose={setView} />
        <span className="note">
          {view === "order"
            ? `${data.order.reference} · what the crew reads, without a price`
            : view === "schedule"
              ? "A place is a line, a task a piece of tape cut to its days"
              : view === "invoices" || view === "buying" || view === "changes"
                ? data.order.reference
                : view === "visits"
                  ? "What comes back, done, moved or left out"
                  : "Hours count as far as the work is marked done"}
        </span>
      </div>
      {view === "order" ? (
        <WorkOrder data={data} order={data.order} />
      ) : view === "changes" ? (
        <Changes />
      ) : view === "buying" ? (
        <Buying works={data.works} />
      ) : view === "visits" && round ? (
        <Visits data={round} />
      ) : view === "schedule" ? (
        <Schedule />
      ) : view === "invoices" ? (
        <Invoices />
      ) : (
        <HoursUsed data={data} />
      )}
    </div>
  );
}
