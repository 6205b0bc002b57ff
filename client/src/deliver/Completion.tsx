import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import styles from "./deliver.module.css";
import { useCompletion } from "./useDeliver";

interface Props {
  data: Schemas["CompletionView"];
  did: (answer: Promise<Schemas["CompletionView"]>) => Promise<void>;
  onClose: () => void;
}

/** What is to be mended, and that the customer has taken the work. */
export function Completion() {
  const { job, did, act, wrong } = useCompletion();
  const { data } = useQuery(askJob.completion(job));
  const [doing, setDoing] = useState<"snag" | "note" | "">("");
  if (!data) return null;
  const close = () => setDoing("");
  return (
    <section className="panel" aria-label="Snags and completion">
      <header>
        <h2>Snags and completion</h2>
        <button type="button" className="act note" onClick={() => setDoing("snag")}>
          Write a snag
        </button>
      </header>
      {wrong && (
        <p className="pad error" role="alert">
          {wrong}
        </p>
      )}
      <ul className={styles.far} aria-label="Snags">
        {data.snags.map((snag) => (
          <li key={snag.id}>
            <Check
              on={snag.mended}
              name={`${snag.text}: mended`}
              onTick={(mended) => void act(change.mendSnag(job.id, snag.id, { id: newId(), mended }))}
            >
              {snag.where && `${snag.where}: `}
              {snag.text}
              <small className={styles.saidOf}>{snag.said}</small>
            </Check>
          </li>
        ))}
      </ul>
      <p className="pad note">
        {data.note || (data.open > 0 ? `${data.open} open. ` : "")}
        {!data.note &&
          "Nobody has taken the work yet: the completion note opens the last invoice and what is retained."}
      </p>
      <p className={`pad ${styles.noteActs}`}>
        {data.note ? (
          <button type="button" className="act" onClick={() => void act(change.takeCompletionBack(job.id, newId()))}>
            Take the note back
          </button>
        ) : (
          <button type="button" className="act" onClick={() => setDoing("note")}>
            Record the note
          </button>
        )}
        <a className="act" href={`/api/jobs/${job.id}/deliver/completion/note.pdf`} download>
          Completion note, PDF
        </a>
      </p>
      {doing === "snag" && <SnagDialog data={data} did={did} onClose={close} />}
      {doing === "note" && <NoteDialog data={data} did={did} onClose={close} />}
    </section>
  );
}

function SnagDialog({ data, did, onClose }: Props) {
  const { job } = useCompletion();
  const [id] = useState(newId);
  const [text, setText] = useState("");
  const [place, setPlace] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title="Write a snag"
      apply="Write it"
      width="xs"
      ready={text.trim() !== ""}
      onApply={() => did(change.writeSnag(job.id, { id, text, place: place || null }))}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["text", "place"].includes(field);
      }}
      onClose={onClose}
    >
      <Input label="What is to be mended" focus maxLength={500} value={text} wrong={wrong["text"]} onType={setText} />
      <Choice
        label="Where"
        value={place}
        none="the job as a whole"
        options={data.places.map((p) => [p.id, p.name] as const)}
        wrong={wrong["place"]}
        onChoose={setPlace}
      />
    </Ask>
  );
}

function NoteDialog({ data, did, onClose }: Props) {
  const { job } = useCompletion();
  const [id] = useState(newId);
  const [name, setName] = useState(data.customer);
  const [day, setDay] = useState(data.today);
  const [how, setHow] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title="The completion note"
      apply="Record it"
      width="xs"
      ready={name.trim() !== ""}
      onApply={() => did(change.recordCompletion(job.id, { id, name, day, how }))}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["name", "day", "how"].includes(field);
      }}
      onClose={onClose}
    >
      {data.open > 0 && (
        <p className="note">
          {data.open === 1 ? "One snag is" : `${data.open} snags are`} open: the last invoice can be issued, the release
          of what is retained waits.
        </p>
      )}
      <Input label="Who takes the work" focus maxLength={80} value={name} wrong={wrong["name"]} onType={setName} />
      <Input label="Day" placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
      <Input
        label="How"
        maxLength={300}
        placeholder="signed on paper"
        value={how}
        wrong={wrong["how"]}
        onType={setHow}
      />
    </Ask>
  );
}
