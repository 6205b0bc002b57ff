import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { askJob } from "../api/jobQueries";
import { Views } from "../controls/Views";
import { useJob } from "../job/JobContext";
import { useKept } from "../job/useKept";
import { Page } from "./Page";
import styles from "./proposal.module.css";
import { Revisions } from "./Revisions";

const views = { page: "Page", revisions: "Revisions" };
type View = keyof typeof views;

/** The Proposal station: the page, and what was sent of it. */
export function ProposalPage() {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.stands(job));
  const [kept, setKept] = useKept<View>(job.id, "proposal/view", "page");
  // What stands elsewhere about a revision leads to it.
  const [params, setParams] = useSearchParams();
  const asked = params.get("view");
  const view = asked && asked in views ? (asked as View) : kept;
  function setView(to: View) {
    setKept(to);
    if (asked) setParams({}, { replace: true });
  }
  return (
    <div className={styles.station}>
      <div className={styles.bar}>
        <Views views={views} value={view} onChoose={setView} />
        <span className="note">
          {view === "revisions"
            ? "A sent revision keeps its numbers and words for good; before tax"
            : data &&
              (data.wasSent ? `${data.words}; what you change is of revision ${data.next}` : "Nothing was sent yet")}
        </span>
      </div>
      {view === "revisions" ? <Revisions /> : <Page />}
    </div>
  );
}
