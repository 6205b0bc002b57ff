import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { useJob } from "../job/JobContext";
import styles from "./revisions.module.css";

/** What the customer chose of a revision; it is taken into the job by one key. */
export function Chosen({ revision }: { revision: Schemas["RevisionView"] }) {
  const [open, { job }] = useJob();
  const { data } = useQuery(askJob.chosen(job, revision.id, revision.selection));
  if (!data || data.names.length === 0) return null;
  const takeOver = async () => {
    for (const command of data.takesOver) await open.send(command);
  };
  return (
    <div className={styles.under}>
      <p>
        The customer chose <b>{data.names.join("; ")}</b>: pays {data.total}.
      </p>
      {data.gone.length > 0 && <p className="note">Not in the job any more: {data.gone.join("; ")}.</p>}
      {revision.state !== "accepted" &&
        (data.takesOver.length > 0 ? (
          <button type="button" className="act" onClick={() => void takeOver()}>
            Take it over into the job
          </button>
        ) : (
          <p className="note">All of it stands in the job.</p>
        ))}
    </div>
  );
}
