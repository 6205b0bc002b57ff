import { useState } from "react";
import type { Place, Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import styles from "./measure.module.css";

type Kind = Schemas["TypedQuantity"]["kind"];

const kinds: { kind: Kind; label: string }[] = [
  { kind: "area", label: "an area" },
  { kind: "length", label: "a length" },
  { kind: "volume", label: "a volume" },
  { kind: "count", label: "a count" },
];

/** Types a measure as an expression: one of the user's own, or over a derived one, which is kept and can be had back. */
export function TypeMeasure({
  place,
  measures,
  onClose,
}: {
  place: Place;
  measures: readonly Schemas["MeasureView"][];
  onClose: () => void;
}) {
  const [open, { job }] = useJob();
  const [over, setOver] = useState("");
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("area");
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState("");
  const measure = measures.find((m) => m.name === over);

  async function keep() {
    try {
      await open.send({
        type: "setMeasure",
        place: place.id,
        name: measure ? measure.name : name,
        was: measure?.typed ?? null,
        now: { kind: measure?.kind ?? kind, text, units: job.units },
      });
      onClose();
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  return (
    <form
      className={styles.typemeasure}
      aria-label="Type a measure"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
      onKeyDown={(e) => e.key === "Escape" && onClose()}
    >
      <Choice
        label="Type a measure"
        focus
        value={over}
        none="one of my own"
        options={measures.map((m) => [m.name, `instead of ${m.label}`])}
        onChoose={setOver}
      />
      {!measure && (
        <div className="two">
          <Input label="Its name" placeholder="like Coving" value={name} onType={setName} />
          <Choice
            label="What it is"
            value={kind}
            options={kinds.map((k) => [k.kind, k.label])}
            onChoose={(now) => setKind(now as Kind)}
          />
        </div>
      )}
      <Input
        label="Expression"
        placeholder={job.units === "feet" ? "24 x 15 + 10 x 10" : "7.3 x 4.5 + 3 x 3"}
        value={text}
        wrong={wrong}
        onType={setText}
      />
      <div className="two">
        <button className="link">Keep</button>
        <button type="button" className="link" onClick={onClose}>
          Cancel
        </button>
      </div>
    </form>
  );
}
