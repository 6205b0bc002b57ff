import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Input } from "../controls/Input";
import { useJob } from "../job/JobContext";
import styles from "./revisions.module.css";
import { useRevisionsTold } from "./useRevisionsTold";

/** What customers asked on their page, and what the firm answers there. */
export function Questions() {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.questions(job));
  if (!data) return null;
  return (
    <section className={`panel ${styles.asked}`} aria-label="Questions">
      <header>
        <h2>Questions</h2>
        <span className="note">
          {data.open > 0 ? `${data.open} without an answer` : "what you answer stands on the customer's page at once"}
        </span>
      </header>
      {data.questions.length === 0 && (
        <p className="pad note">
          Nobody has asked anything yet. Whoever has a link to the customer&apos;s page can ask there; links are made
          under Revisions, and go out with mail.
        </p>
      )}
      {data.questions.map((question) => (
        <Question key={question.id} question={question} />
      ))}
    </section>
  );
}

function Question({ question }: { question: Schemas["AskedView"] }) {
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const [open, setOpen] = useState(question.answers.length === 0);
  const [words, setWords] = useState("");
  const [id, setId] = useState(newId);
  const [wrong, setWrong] = useState("");
  const answer = async () => {
    try {
      await change.answer(job.id, question.revision, { id, question: question.id, words });
      setWords("");
      setWrong("");
      setId(newId());
      setOpen(false);
      await told();
    } catch (error) {
      setWrong((error as Error).message);
    }
  };
  return (
    <article aria-label={`Question of ${question.by}`}>
      <h3>
        {question.by}
        <span>
          {question.called} · {question.at}
        </span>
      </h3>
      <p>{question.words}</p>
      {question.answers.map((given) => (
        <blockquote key={given.id}>
          {given.words}
          <footer>
            answered {given.at} by {given.by}
          </footer>
        </blockquote>
      ))}
      {open ? (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            void answer();
          }}
        >
          <Input
            label="Your answer"
            rows={3}
            maxLength={2000}
            value={words}
            wrong={wrong}
            hint="everybody who has a link to this revision reads it"
            onType={setWords}
          />
          <Button type="submit" variant="contained" disabled={words.trim() === ""}>
            Answer
          </Button>
        </form>
      ) : (
        <button type="button" className="act" onClick={() => setOpen(true)}>
          Answer once more
        </button>
      )}
    </article>
  );
}
