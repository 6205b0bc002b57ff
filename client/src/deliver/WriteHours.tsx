import { useState } from "react";
import { Refused, newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { useDeliver } from "./useDeliver";

type For = Schemas["HoursFor"];

const what: readonly (readonly [For, string])[] = [
  ["work", "the work"],
  ["setUp", "set-up and travel"],
  ["snags", "mending afterwards"],
];

/** Writes hours: who, when, how long, on what. What is refused stays, beside its field. */
export function WriteHours({ data, onClose }: { data: Schemas["DeliverView"]; onClose: () => void }) {
  const { job, did } = useDeliver();
  const [id] = useState(newId);
  const [on, setOn] = useState<For>("work");
  const [work, setWork] = useState("");
  const [place, setPlace] = useState("");
  const [person, setPerson] = useState(data.people.length === 1 ? data.people[0]! : "");
  const [day, setDay] = useState(data.today);
  const [hours, setHours] = useState("");
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const of = data.works.find((w) => w.id === work);
  return (
    <Ask
      title="Write hours"
      apply="Write them"
      ready={person.trim() !== "" && hours.trim() !== ""}
      onApply={() =>
        did(
          change.writeHours(job.id, {
            id,
            for: on,
            work: on !== "setUp" && work !== "" ? work : null,
            place: on !== "setUp" && place !== "" ? place : null,
            person,
            day,
            hours,
            words,
          }),
        )
      }
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["person", "day", "hours", "words", "work", "place"].includes(field);
      }}
      onClose={onClose}
    >
      <Input
        label="Who"
        focus
        maxLength={80}
        value={person}
        wrong={wrong["person"]}
        hint={data.people.length > 0 ? `so far: ${data.people.join(", ")}` : undefined}
        onType={setPerson}
      />
      <Input label="Day" placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
      <Input label="Hours" unit="h" inputMode="decimal" value={hours} wrong={wrong["hours"]} onType={setHours} />
      <Choice label="For" value={on} options={what} onChoose={setOn} />
      {on !== "setUp" && (
        <>
          <Choice
            label="On"
            value={work}
            none="the job as a whole"
            options={data.works.map((w) => [w.id, w.name] as const)}
            wrong={wrong["work"]}
            onChoose={(now) => {
              setWork(now);
              setPlace("");
            }}
          />
          {of && (
            <Choice
              label="Where"
              value={place}
              none="all of it"
              options={of.places.map((p) => [p.id, p.name] as const)}
              wrong={wrong["place"]}
              onChoose={setPlace}
            />
          )}
        </>
      )}
      <Input label="Note" maxLength={500} value={words} wrong={wrong["words"]} onType={setWords} />
    </Ask>
  );
}
