import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import styles from "./proposal.module.css";

type Hole = Schemas["Unfinished"];

const where = {
  job: "the heading of the job, above",
  measure: "Measure",
  work: "Work",
  price: "Price",
  proposal: "here",
  schedule: "the schedule",
};

/** With what the proposal should not go out, each with its way there. */
export function Unfinished({ view, onBlock }: { view: Schemas["ProposalView"]; onBlock: (id: string) => void }) {
  const [, { job }] = useJob();
  const to = (hole: Hole) => {
    const base = `/jobs/${hole.job ?? job.id}/${hole.at}`;
    if (hole.at === "work" && hole.work) return `${base}?work=${hole.work}${hole.place ? `&place=${hole.place}` : ""}`;
    if (hole.at === "schedule") return `/jobs/${hole.job ?? job.id}/measure/schedule?view=priced`;
    if (hole.at === "measure" && hole.place) return `${base}?place=${hole.place}`;
    return hole.key.endsWith("payment") ? `${base}?field=payment` : base;
  };
  const payment = view.document.blocks.find((b) => b.kind === "payment");
  return (
    <section className="panel" aria-label="Before it goes out">
      <header>
        <h2>Before it goes out</h2>
      </header>
      {view.unfinished.length === 0 ? (
        <p className="pad note">Nothing is missing.</p>
      ) : (
        <ul className={`rows ${styles.holes}`}>
          {view.unfinished.map((hole) => (
            <li key={hole.key}>
              <span>
                {hole.says} <small>{hole.why}</small>
              </span>
              {hole.block || (hole.key === "payment" && payment) ? (
                <button type="button" className="act" onClick={() => onBlock(hole.block ?? payment!.id)}>
                  Show it
                </button>
              ) : hole.at === "job" || (hole.at === "proposal" && !hole.job) ? (
                <span className="note">{where[hole.at]}</span>
              ) : (
                <Link to={to(hole)}>{where[hole.at]}</Link>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
