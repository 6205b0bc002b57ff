import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { askJob } from "../api/jobQueries";
import { Check } from "../controls/Check";
import { useTold } from "../controls/useTold";
import { useJob } from "../job/JobContext";
import styles from "./proposal.module.css";
import type { BlocksDo, Held } from "./useBlocks";

/** Which other jobs of the customer go out with this proposal: accepted together, each with its own contract sum. */
export function FurtherEstimates({ held, does }: { held: Held; does: BlocksDo }) {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.further(job));
  const [wrong, tell] = useTold();
  const named = held.estimates ?? [];
  const gone = data ? named.filter((id) => data.every((f) => f.id !== id)) : [];
  const set = (now: readonly string[]) => tell(does.set(held, "estimates", now));
  return (
    <div className={`pad ${styles.further}`} role="group" aria-label="Estimates that go out with it">
      {data?.map((further) => (
        <div key={further.id}>
          <Check
            on={named.includes(further.id)}
            onTick={(on) => set(on ? [...named, further.id] : named.filter((id) => id !== further.id))}
          >
            {further.name}
          </Check>
          <small>
            {further.total} {job.info.currency}, {further.state}
            {further.wrong && <span className="error"> ▲ {further.wrong}</span>}{" "}
            <Link to={`/jobs/${further.id}/price`}>Open it</Link>
          </small>
        </div>
      ))}
      {data?.length === 0 && (
        <p className="note">
          This customer has no other job. A job whose estimate is to go out with this one has the same customer.
        </p>
      )}
      {gone.length > 0 && (
        <button type="button" className="act" onClick={() => set(named.filter((id) => !gone.includes(id)))}>
          Take out what is not here any more
        </button>
      )}
      <p className="note">
        They are accepted together by one signature, and each keeps its own contract sum. Their choices go as they are
        taken.
      </p>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
