import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas, Work } from "../api/client";
import { bookChanged } from "../book/useEntry";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { Ask } from "../controls/Ask";
import { Preview } from "./Preview";
import styles from "./work.module.css";
import { askJob } from "../api/jobQueries";
import { change } from "../api/changes";

/** Where two versions of an entry differ. */
export function DifferenceTable({
  lines,
  was,
  now,
}: {
  lines: readonly Schemas["Difference"][];
  was: string;
  now: string;
}) {
  return (
    <table className={`list ${styles.differences}`}>
      <thead>
        <tr>
          <th scope="col">What</th>
          <th scope="col">{was}</th>
          <th scope="col">{now}</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((d) => (
          <tr key={d.field}>
            <th scope="row">{d.field}</th>
            <td>{d.was || "—"}</td>
            <td>{d.now || "—"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A change made in this job kept in the Book, or the Book's entry taken into the job; never without showing what differs. */
export function KeepInBook({ way, item, onClose }: { way: "keep" | "take"; item: Work; onClose: () => void }) {
  const [open, { job }] = useJob();
  const queries = useQueryClient();
  const { data } = useQuery(askJob.kept(job, item.id));
  const lines = way === "keep" ? data?.keep : data?.take;
  const take: Edit = { type: "takeFromBook", entries: [item.entry], work: item.id };

  async function keep() {
    if (way === "take") return open.send(take);
    const keeping = { was: data!.bookVersion, work: item.id };
    await open.through((sent) => change.keepInBook(job.id, item.entry, sent, keeping));
    await bookChanged(queries);
  }

  return (
    <Ask
      title={way === "keep" ? `Keep ${item.name} in the Book` : `Take ${item.name} from the Book`}
      apply={way === "keep" ? "Keep in the Book" : "Take from the Book"}
      ready={
        data !== undefined && (lines!.length > 0 || data.bookVersion === 0) && (way === "keep" || data.bookVersion > 0)
      }
      onApply={keep}
      onClose={onClose}
    >
      {!lines ? (
        <p className="note">Comparing…</p>
      ) : data!.bookVersion === 0 ? (
        <p>This entry is not in the Book any more. {way === "keep" && "Keeping it puts it back."}</p>
      ) : lines.length === 0 ? (
        <p>The job and the Book say the same.</p>
      ) : way === "keep" ? (
        <>
          <p>The Book gets a new version with these changes. Other jobs keep what they have.</p>
          <DifferenceTable lines={lines} was="in the Book" now="as in this job" />
        </>
      ) : (
        <>
          <p>This job takes the newest version; its own changes to this work go.</p>
          <DifferenceTable lines={lines} was="in this job" now="in the Book" />
          <Preview edit={take} />
        </>
      )}
    </Ask>
  );
}
