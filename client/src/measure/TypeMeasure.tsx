import { useId, useState } from "react";
import type { Place, Schemas } from "../api/client";
import { useJob } from "../job/JobContext";

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
  const id = useId();
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
      className="typemeasure"
      aria-label="Type a measure"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
      onKeyDown={(e) => e.key === "Escape" && onClose()}
    >
      <label htmlFor={`${id}over`}>Type a measure</label>
      <select id={`${id}over`} value={over} onChange={(e) => setOver(e.target.value)} autoFocus>
        <option value="">one of my own</option>
        {measures.map((m) => (
          <option key={m.name} value={m.name}>
            instead of {m.label}
          </option>
        ))}
      </select>
      {!measure && (
        <div className="two">
          <input
            aria-label="Its name"
            placeholder="name, like Coving"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <select aria-label="What it is" value={kind} onChange={(e) => setKind(e.target.value as Kind)}>
            {kinds.map((k) => (
              <option key={k.kind} value={k.kind}>
                {k.label}
              </option>
            ))}
          </select>
        </div>
      )}
      <input
        aria-label="Expression"
        placeholder={job.units === "feet" ? "24 x 15 + 10 x 10" : "7.3 x 4.5 + 3 x 3"}
        value={text}
        autoComplete="off"
        aria-invalid={wrong !== ""}
        onChange={(e) => setText(e.target.value)}
      />
      {wrong && (
        <span className="error" role="alert">
          {wrong}
        </span>
      )}
      <div className="two">
        <button className="link">Keep</button>
        <button type="button" className="link" onClick={onClose}>
          Cancel
        </button>
      </div>
    </form>
  );
}
