import { useState } from "react";
import { type Refused, type Schemas, newId } from "../api/client";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { wholeOr } from "../controls/wholeOr";
import { useJob } from "../job/JobContext";
import { visits, withVisit } from "./rhythmWords";

const other = "other";

/** Gives the job another rhythm. */
export function NewRhythm({ view, onClose }: { view: Schemas["YearView"]; onClose: () => void }) {
  const [open, { job }] = useJob();
  const [id] = useState(newId);
  const first = job.rhythms.length === 0;
  const taken = (name: string) => job.rhythms.some((r) => r.name === name);
  const [often, setOften] = useState(String(view.usual.findIndex((f) => !taken(f.name))));
  const [times, setTimes] = useState("");
  const [name, setName] = useState<string | null>(null);
  const [visit, setVisit] = useState(first ? "own" : "along");
  const [usual, setUsual] = useState(first);
  const [wrong, setWrong] = useState<{ field: string; words: string } | null>(null);
  const said = view.usual[Number(often)];
  const event = often === "event";
  const usualName = event ? "Event" : (said?.name ?? (times.trim() === "" ? "" : `${times.trim()} times a year`));
  const make = () =>
    open.send({
      type: "addRhythm",
      rhythm: {
        id,
        rank: "",
        name: name ?? usualName,
        kind: event ? "event" : (said?.kind ?? "times"),
        times: event ? 1 : (said?.times ?? (wholeOr(times) as number)),
        months: [],
        ...(event ? { instead: null, ownVisit: true } : withVisit({ ownVisit: true }, visit)),
        bands: event ? [{ id: newId(), name: "each time", factor: "1", expected: 0, cap: null }] : [],
      },
      usual,
    });
  const of = (field: string) => (wrong?.field === field ? wrong.words : undefined);
  return (
    <Ask
      title="New rhythm"
      apply="Give it to the job"
      onApply={make}
      onRefused={(error) => {
        const field = (error as Refused).field;
        setWrong({ field, words: error.message });
        return ["name", "times", "instead"].includes(field);
      }}
      onClose={onClose}
    >
      <Choice
        label="How often"
        focus
        value={often}
        options={[
          ...view.usual.map((f, i) => [String(i), f.name] as const),
          [other, "another number a year"],
          ["event", "when something happens: snow, a storm"],
        ]}
        onChoose={setOften}
      />
      {often === other && (
        <Input label="Times a year" value={times} onType={setTimes} wrong={of("times")} hint="1 to 1,000" />
      )}
      <Input label="Name" value={name ?? usualName} onType={setName} wrong={of("name")} />
      {!first && !event && (
        <Choice
          label="When it is done"
          value={visit}
          options={visits({ id }, job.rhythms, false)}
          wrong={of("instead") ?? (often === other ? undefined : of("times"))}
          onChoose={setVisit}
        />
      )}
      <Check on={usual} onTick={setUsual}>
        Work that says nothing else goes by it
      </Check>
    </Ask>
  );
}
