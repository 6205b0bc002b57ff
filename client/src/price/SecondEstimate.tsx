import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { FileChoice } from "../controls/FileChoice";
import { Input } from "../controls/Input";
import { useJob } from "../job/JobContext";
import { TwoFigures, TwoHead } from "./TwoFigures";
import styles from "./sure.module.css";

const books = [
  ["today", "the Book as it is today"],
  ["day", "the Book as it was on a day"],
  ["file", "another firm's Book, a file"],
] as const;
const levels = [
  ["-2", "two levels easier"],
  ["-1", "one level easier"],
  ["1", "one level harder"],
  ["2", "two levels harder"],
] as const;

/** Would two estimators agree: the same job by another Book, difficulty or pace, the largest differences first. */
export function SecondEstimate() {
  const [, { job }] = useJob();
  const [book, setBook] = useState<(typeof books)[number][0] | "">("");
  const [day, setDay] = useState("");
  const [file, setFile] = useState({ hash: "", name: "", wrong: "" });
  const [harder, setHarder] = useState<(typeof levels)[number][0] | "">("");
  const [slower, setSlower] = useState("");
  const which = book === "day" ? day.trim() : book === "file" ? file.hash : book;
  const complete = book === "" || which !== "";
  const differs = complete && (book !== "" || harder !== "" || slower.trim() !== "");
  const { data, error, isPlaceholderData } = useQuery({
    ...askJob.second(job, which, harder, slower),
    enabled: differs,
  });
  const said = differs && error ? (error as Error & { field?: string }) : null;
  const wrong = (field: string) => (said?.field === field ? said.message : undefined);
  async function take(chosen: File) {
    try {
      setFile({ hash: (await change.keepFile(chosen)).hash, name: chosen.name, wrong: "" });
    } catch (refused) {
      setFile({ hash: "", name: "", wrong: (refused as Error).message });
    }
  }
  return (
    <section className="panel" aria-label="Would two estimators agree">
      <header>
        <h2>Would two estimators agree</h2>
        <span className="note">the same job as another would have it; nothing of it is kept</span>
      </header>
      <div className={styles.other}>
        <Choice
          label="Their Book"
          value={book}
          none="ours, as this job has it"
          options={books}
          onChoose={setBook}
          wrong={book === "today" ? wrong("book") : undefined}
        />
        {book === "day" && (
          <Input label="As it was on" placeholder="2026-03-31" value={day} onType={setDay} wrong={wrong("book")} />
        )}
        {book === "file" && (
          <div>
            <FileChoice label="Book file" accept=".json" onFile={(chosen) => void take(chosen)} says="book-file" />
            <p id="book-file" role="status" className={file.wrong || wrong("book") ? "error" : "note"}>
              {file.wrong || wrong("book") || (file.hash && `held against ${file.name}`)}
            </p>
          </div>
        )}
        <Choice label="They find work" value={harder} none="as hard as we do" options={levels} onChoose={setHarder} />
        <Input
          label="They give labour"
          unit="% more time"
          placeholder="0"
          value={slower}
          onType={setSlower}
          wrong={wrong("slower")}
        />
      </div>
      {said && !["book", "slower"].includes(said.field ?? "") && <p className="error pad">{said.message}</p>}
      {!differs ? (
        <p className="pad note">Say in what the other goes about it otherwise: what differs stands here.</p>
      ) : (
        data &&
        !said && (
          <table className={`list ${styles.two}`} aria-label="What differs" aria-busy={isPlaceholderData}>
            <TwoHead ours="ours" theirs="theirs" />
            <tbody>
              <tr className={styles.whole}>
                <th scope="row">
                  The whole job <small>theirs: {data.margin}</small>
                </th>
                <TwoFigures name="The whole job" of={data} />
              </tr>
              {data.work.map((work) => (
                <tr key={work.id}>
                  <th scope="row">{work.name}</th>
                  <TwoFigures name={work.name} of={work} />
                </tr>
              ))}
            </tbody>
          </table>
        )
      )}
      {differs && data && !said && (
        <p className="pad note">
          {data.all === 0
            ? "Nothing differs."
            : data.all > data.work.length
              ? `The largest ${data.work.length} of ${data.all} differences in price.`
              : `${data.all} of ${job.work.length} pieces of work differ, the largest difference in price first.`}
        </p>
      )}
    </section>
  );
}
