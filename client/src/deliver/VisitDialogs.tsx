import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import schedule from "./schedule.module.css";
import { Moves, Troubles } from "./TaskSheet";
import { useVisits } from "./useDeliver";
import styles from "./visits.module.css";

type Row = Schemas["VisitRow"];

/** Says what is refused beside its field. */
function useRefused(fields: readonly string[]) {
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const refused = (error: Error) => {
    const field = error instanceof Refused ? error.field : "";
    setWrong({ [field]: error.message });
    return fields.includes(field);
  };
  return [wrong, refused] as const;
}

/** A visit was done, or an event came: when, and who was how long there. */
export function SayDone(props: {
  data: Schemas["RoundView"];
  title: string;
  /** The visit; of an event that came its id is made here. */
  visit: Schemas["VisitKey"];
  day: string;
  onClose: () => void;
}) {
  const { job, did } = useVisits();
  const [id] = useState(newId);
  const [visit] = useState(() => props.visit.visit || newId());
  const [day, setDay] = useState(props.day);
  const [hours, setHours] = useState([{ person: "", hours: "" }]);
  const [words, setWords] = useState("");
  const [wrong, refused] = useRefused(["day", "hours", "person", "words"]);
  const set = (at: number, part: Partial<Schemas["VisitHours"]>) =>
    setHours(hours.map((h, i) => (i === at ? { ...h, ...part } : h)));
  return (
    <Ask
      title={`${props.title}: done`}
      apply="It was done"
      onApply={() =>
        did(
          change.sayOfVisits(job.id, {
            id,
            visits: [{ visit, kind: props.visit.kind }],
            said: "done",
            day,
            words,
            hours,
          }),
        )
      }
      onRefused={refused}
      onClose={props.onClose}
    >
      <Input label="Day" focus placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
      {hours.map((one, at) => (
        <div key={at} className={styles.pair}>
          <Input
            label={at === 0 ? "Who" : `Who, ${at + 1}`}
            maxLength={80}
            value={one.person}
            wrong={at === 0 ? wrong["person"] : undefined}
            hint={
              at > 0 || props.data.people.length === 0
                ? undefined
                : `so far: ${props.data.people.slice(0, 6).join(", ")}; empty for no hours`
            }
            onType={(person) => set(at, { person })}
          />
          <Input
            label={at === 0 ? "Hours" : `Hours, ${at + 1}`}
            unit="h"
            inputMode="decimal"
            value={one.hours}
            wrong={at === 0 ? wrong["hours"] : undefined}
            onType={(of) => set(at, { hours: of })}
          />
        </div>
      ))}
      <p>
        <button type="button" className="act" onClick={() => setHours([...hours, { person: "", hours: "" }])}>
          One more person
        </button>
      </p>
      <Input label="Note" maxLength={500} value={words} wrong={wrong["words"]} onType={setWords} />
    </Ask>
  );
}

/** A visit is left out: why, and whether it is billed. */
export function SayLeftOut({ row, onClose }: { row: Row; onClose: () => void }) {
  const { job, did } = useVisits();
  const [id] = useState(newId);
  const [said, setSaid] = useState<"leftOut" | "leftOutByThem">("leftOut");
  const [words, setWords] = useState("");
  const [wrong, refused] = useRefused(["words"]);
  return (
    <Ask
      title={`Leave out ${row.name}, ${row.words}`}
      apply="Leave it out"
      ready={words.trim() !== ""}
      onApply={() =>
        did(
          change.sayOfVisits(job.id, {
            id,
            visits: [{ visit: row.id, kind: row.kind }],
            said,
            day: "",
            words,
            hours: [],
          }),
        )
      }
      onRefused={refused}
      onClose={onClose}
    >
      <Input label="Why" focus maxLength={500} value={words} wrong={wrong["words"]} onType={setWords} />
      <Radios
        label="What it means for the bill"
        value={said}
        options={[
          { value: "leftOut", words: "Not billed", small: "it comes off in the month that closes the year" },
          { value: "leftOutByThem", words: "Billed", small: "the customer wished it within the notice" },
        ]}
        onChoose={setSaid}
      />
    </Ask>
  );
}

/** The round ends early: all that is still to come is left out. */
export function EndRound({ open, onClose }: { open: readonly Row[]; onClose: () => void }) {
  const { job, did } = useVisits();
  const [id] = useState(newId);
  const [words, setWords] = useState("");
  const [wrong, refused] = useRefused(["words"]);
  return (
    <Ask
      title="End the round early"
      apply={`Leave out all ${open.length}`}
      ready={words.trim() !== ""}
      onApply={() =>
        did(
          change.sayOfVisits(job.id, {
            id,
            visits: open.map((v) => ({ visit: v.id, kind: v.kind })),
            said: "leftOut",
            day: "",
            words,
            hours: [],
          }),
        )
      }
      onRefused={refused}
      onClose={onClose}
    >
      <p>
        All {open.length} visits of which nobody has said anything are left out and not billed. Say before of each that
        was done that it was. Then <b>Invoices</b> close the year with all that is open.
      </p>
      <Input label="Why" focus maxLength={500} value={words} wrong={wrong["words"]} onType={setWords} />
    </Ask>
  );
}

/** A visit is put on another day: what that moves and where it asks too much of a crew is seen before. */
export function MoveVisit({ row, onClose }: { row: Row; onClose: () => void }) {
  const [open, { job }] = useJob();
  const { again } = useVisits();
  const [day, setDay] = useState(row.day);
  const {
    data: preview,
    error,
    isPlaceholderData,
  } = useQuery({ ...askJob.visitMove(job, row.id, day), enabled: day.trim() !== "" });
  const ready = day.trim() !== "" && !error && preview !== undefined && !isPlaceholderData;
  return (
    <Ask
      title={`Move ${row.name}, ${row.words}`}
      apply="Move it"
      ready={ready && preview.changes.length > 0}
      onApply={async () => {
        await open.send({ type: "changeTasks", tasks: preview!.changes });
        await again();
      }}
      onClose={onClose}
    >
      <Input
        label="To the day"
        focus
        placeholder="2027-01-31"
        value={day}
        wrong={error?.message}
        hint={preview && !error ? preview.days : undefined}
        onType={setDay}
      />
      {ready && (
        <div className={schedule.would}>
          <Moves moves={preview.moves} />
          <Troubles preview={preview} />
          <p className="note">Those whom it concerns are told under Schedule.</p>
        </div>
      )}
    </Ask>
  );
}
