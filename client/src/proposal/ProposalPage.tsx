import { useQuery } from "@tanstack/react-query";
import { askJob } from "../api/jobQueries";
import { Views } from "../controls/Views";
import { useJob } from "../job/JobContext";
import { useView } from "../job/useView";
import { Page } from "./Page";
import styles from "./proposal.module.css";
import { Questions } from "./Questions";
import { Revisions } from "./Revisions";

const views = { page: "Page", revisions: "Revisions", questions: "Questions" };

/** The Proposal station: the page, what was sent of it, and what was asked about it. */
export function ProposalPage() {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.stands(job));
  const [view, setView] = useView<keyof typeof views>(job.id, "proposal", views, "page");
  return (
    <div className={styles.station}>
      <div className={styles.bar}>
        <Views
          views={{ ...views, questions: data?.questions ? `Questions (${data.questions})` : views.questions }}
          value={view}
          onChoose={setView}
        />
        <span className="note">
          {view === "questions"
            ? "What is asked on the customer's page, and what you answer there"
            : view === "revisions"
              ? "A sent revision keeps its numbers and words for good; before tax"
              : data &&
                (data.wasSent ? `${data.words}; what you change is of revision ${data.next}` : "Nothing was sent yet")}
        </span>
      </div>
      {view === "questions" ? <Questions /> : view === "revisions" ? <Revisions /> : <Page />}
    </div>
  );
}
