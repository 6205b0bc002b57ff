import { useId, useState } from "react";
import { type Refused, newId } from "../api/client";
import { useDraft } from "./drafts";
import { useMeasures } from "../controls/useMeasures";
import { EntryChoice, useNamed } from "./fields";
import { type Assembly, type Component, useEditing } from "./useEntry";
import { Input } from "../controls/Input";
import { Choice } from "../controls/Choice";
import { Check } from "../controls/Check";
import styles from "./book.module.css";
import { read } from "../api/jobQueries";

/** What each kind of part asks for: the entry of the Book it is made from, or money for one; and what else only it has. */
const kinds: Record<Component["kind"], { entry: { kind: string; label: string } | null; goods?: true; scales?: true }> =
  {
    labour: { entry: { kind: "role", label: "Role" }, scales: true },
    material: { entry: { kind: "material", label: "Material" }, goods: true },
    equipment: { entry: { kind: "equipment", label: "Equipment" } },
    subcontract: { entry: { kind: "subcontract", label: "Subcontract" } },
    charge: { entry: null },
  };

/** A part as it is filled in: what it costs as is chosen first. */
export type PartDraft = Omit<Component, "kind"> & { kind: Component["kind"] | null };

/** A part with nothing chosen; beside others it goes by what they go by. */
export const blankPart = (assembly: Assembly): PartDraft => ({
  id: newId(),
  name: "",
  kind: null,
  entry: null,
  measure: assembly.components.length > 0 ? assembly.measure : null,
  of: null,
  crew: null,
  crewTime: null,
  ratio: null,
  asOrdered: false,
  wastePercent: null,
  question: null,
  once: false,
  depth: "",
  depthAsked: null,
  drops: null,
  compactionPercent: "0",
  perCoat: false,
  scales: true,
  coloured: false,
  group: "",
  optional: false,
  step: null,
  charge: "0",
  wording: "",
  crewNote: "",
});

/** One part, changed as a whole: what it is, what drives it and how much must fit together. */
export function PartForm(props: {
  part: PartDraft;
  /** Position in the assembly; one past the end for a new part. */
  index: number;
  isNew: boolean;
  move: (by: number) => void;
  remove: () => Promise<void>;
  onDone: () => void;
}) {
  const { index } = props;
  const { view, change } = useEditing();
  const assembly = view.entry as Assembly;
  const named = useNamed();
  const measures = useMeasures();
  const [part, setPart, drop] = useDraft(`${view.entry.id} part ${props.isNew ? "new" : props.part.id}`, props.part);
  const [wrong, setWrong] = useState<{ field: string; says: string } | null>(null);
  const id = useId();
  const { entry, goods } = part.kind ? kinds[part.kind] : { entry: undefined, goods: undefined };
  const draft = (some: Partial<PartDraft>) => setPart({ ...part, ...some });
  const others = assembly.components.filter((c) => c.id !== part.id);
  const [partnerId, setPartner] = useState(
    () => others.find((c) => part.group !== "" && c.group === part.group)?.id ?? "",
  );

  /** A percentage of what drives it is read as a rate in its unit. */
  async function ratioOf(): Promise<string | null> {
    if (!part.ratio?.trim().endsWith("%")) return part.ratio;
    const by = others.find((c) => c.id === part.of);
    const driver =
      assembly.questions.find((q) => q.id === part.question)?.unit ??
      named.find((n) => n.id === by?.entry)?.unit ??
      null;
    return read.rate(part.ratio, driver);
  }

  function done() {
    drop();
    props.onDone();
  }

  async function keep() {
    const { kind } = part;
    if (kind === null) return setWrong({ field: "kind", says: "Choose what it costs as." });
    try {
      const ratio = await ratioOf();
      await change((whole) => {
        const next = whole as Assembly;
        const left = next.components[index]?.group ?? "";
        next.components[index] = { ...part, kind, ratio };
        // A group is of two or more: whoever would be left alone in one leaves it.
        for (const c of next.components) if (c.id === partnerId) c.group = part.group;
        const rest = next.components.filter((c) => left !== "" && c.group === left);
        if (rest.length === 1) rest[0]!.group = "";
        return next;
      });
      done();
    } catch (error) {
      const refused = error as Refused;
      const field = refused.field.split(".").at(-1) ?? "";
      setWrong({ field: field === "rate" ? "ratio" : field, says: refused.message });
    }
  }
  const says = (field: string) =>
    wrong?.field === field && (
      <span className="error" role="alert" id={`${id}${field}wrong`}>
        {wrong.says}
      </span>
    );
  const sayOf = (...fields: string[]) => (wrong && fields.includes(wrong.field) ? wrong.says : undefined);
  const text = (field: keyof Component, label: string, hint?: string, unit?: string, optional?: boolean) => (
    <Input
      label={label}
      unit={unit}
      hint={hint}
      value={String(part[field] ?? "")}
      wrong={sayOf(field)}
      onType={(typed) => draft({ [field]: optional && typed.trim() === "" ? null : typed })}
      onKeyDown={(e) => {
        if (e.key === "Enter") void keep();
      }}
    />
  );
  const check = (field: keyof Component, label: string) => (
    <Check on={part[field] === true} onTick={(on) => draft({ [field]: on })}>
      {label}
    </Check>
  );
  const driver = part.measure
    ? `measure/${part.measure}`
    : part.question
      ? `question/${part.question}`
      : part.of
        ? `of/${part.of}`
        : part.crew !== null
          ? "crew"
          : part.once
            ? "once"
            : "";
  const known = [
    "kind",
    "name",
    "entry",
    "measure",
    "of",
    "ratio",
    "wastePercent",
    "crew",
    "charge",
    "crewTime",
    "depth",
    "step",
    "compactionPercent",
    "group",
    "wide",
    "long",
    "trim",
    "repeat",
    "height",
    "drops",
  ];
  return (
    <div className={styles.partform} role="group" aria-label={props.isNew ? "New part" : `Part ${props.part.name}`}>
      <div className="two">
        {text("name", "Part")}
        <Choice
          label="Costs as"
          value={part.kind ?? ""}
          none={part.kind === null ? "choose" : undefined}
          wrong={sayOf("kind")}
          options={(Object.keys(kinds) as Component["kind"][]).map((k) => [k, k])}
          onChoose={(kind) => kind && draft({ kind, entry: null, scales: kinds[kind].scales === true })}
        />
        {entry === null ? (
          text("charge", "Money for one")
        ) : entry === undefined ? null : (
          <div>
            <EntryChoice
              label={entry.label}
              kinds={[entry.kind]}
              value={part.entry}
              onChoose={(chosen) => {
                draft({ entry: chosen });
                return Promise.resolve();
              }}
            />
            {says("entry")}
          </div>
        )}
        <Choice
          label="Driven by"
          value={driver}
          none={driver === "" ? "choose" : undefined}
          wrong={sayOf("measure", "of")}
          options={[
            ...measures.options.map(
              ([measure, words]) => [`measure/${measure}`, words, "A measure of the place"] as const,
            ),
            ...assembly.questions.map((q) => [`question/${q.id}`, q.text, "A question"] as const),
            ...others
              .filter((c) => c.crew === null && !c.once)
              .map((c) => [`of/${c.id}`, c.name, "Another part"] as const),
            ["crew", "the crew, while it works", "Nothing measured"],
            ["once", "once per work item and job", "Nothing measured"],
          ]}
          onChoose={(now) => {
            if (now === "") return;
            const [by, what] = now.split("/") as [string, string];
            draft({
              measure: by === "measure" ? (what as Component["measure"]) : null,
              question: by === "question" ? what : null,
              of: by === "of" ? what : null,
              crew: by === "crew" ? 2 : null,
              once: by === "once",
            });
          }}
        />
        {part.crewTime ? null : part.crew !== null ? (
          <Input
            label="Crew"
            inputMode="numeric"
            value={String(part.crew)}
            wrong={sayOf("crew")}
            onType={(typed) => draft({ crew: /^\d+$/.test(typed) ? Number(typed) : 0 })}
          />
        ) : (
          text("ratio", "How much", "like 1 t per 31 m², 0.42 t per h, 1 h per 18 m", undefined, true)
        )}
        {part.kind === "labour" &&
          part.once &&
          text("crewTime", "Or hours in all", "like 27 h, or 3 x 9 h for three people", undefined, true)}
        {goods && text("wastePercent", "Waste instead of the material's own", undefined, "%", true)}
      </div>
      {part.of && check("asOrdered", "Takes its driver as ordered, with waste")}
      <details>
        <summary>Layer, coats, either-or, rounding, words</summary>
        <div className="two">
          {text("depth", "Thickness of the layer", "like 50 mm; makes a volume of an area")}
          <Choice
            label="Or thickness from a question"
            value={part.depthAsked ?? ""}
            none="—"
            options={assembly.questions.map((q) => [q.id, q.text])}
            onChoose={(asked) => draft({ depthAsked: asked || null })}
          />
          {goods && (
            <div>
              <Check
                on={part.drops !== null}
                onTick={(on) =>
                  draft({
                    drops: on ? { wide: "0.53 m", long: "10.05 m", trim: "10 cm", repeat: "", height: part.id } : null,
                  })
                }
              >
                Hung in drops from a roll
              </Check>
              {part.drops && (
                <DropsFields
                  drops={part.drops}
                  assembly={assembly}
                  onDrops={(drops) => draft({ drops })}
                  says={sayOf}
                />
              )}
              {says("drops")}
            </div>
          )}
          {text("compactionPercent", "Loose on built, or bulking", undefined, "%")}
          {text("step", "Round its amount in a line up to", undefined, undefined, true)}
          {text("wording", "What the customer reads of it")}
          {text("crewNote", "What the crew reads of it")}
          <Choice
            label="Either this or"
            value={partnerId}
            none="no other part"
            wrong={sayOf("group")}
            options={others.filter((c) => c.kind === part.kind).map((c) => [c.id, c.name])}
            onChoose={(id) => {
              const other = others.find((c) => c.id === id);
              // The partner joins when the part is kept.
              setPartner(other?.id ?? "");
              draft({ group: other ? other.group || other.name : "" });
            }}
          />
        </div>
        {check("optional", "Optional: left out unless taken")}
        {check("perCoat", "Once for each coat")}
        {check("scales", "Difficulty scales it")}
        {goods && check("coloured", "Takes the colour chosen")}
      </details>
      {wrong && !known.includes(wrong.field) && (
        <p className="error" role="alert">
          {wrong.says}
        </p>
      )}
      <p className={styles.partacts}>
        <button className="act" onClick={() => void keep()}>
          Keep the part
        </button>
        <button className="link" onClick={done}>
          Leave it as it was
        </button>
        {!props.isNew && (
          <>
            <button className="link" disabled={index === 0} onClick={() => props.move(-1)}>
              Up
            </button>
            <button className="link" disabled={index === assembly.components.length - 1} onClick={() => props.move(1)}>
              Down
            </button>
            <button
              className={`link ${styles.warn}`}
              onClick={() => props.remove().catch((error: Error) => setWrong({ field: "", says: error.message }))}
            >
              Take the part out
            </button>
          </>
        )}
      </p>
    </div>
  );
}

/** The roll, the trim and the repeat, and the question that gives the height. */
function DropsFields(props: {
  drops: NonNullable<Component["drops"]>;
  assembly: Assembly;
  onDrops: (drops: NonNullable<Component["drops"]>) => void;
  says: (field: string) => string | undefined;
}) {
  const { drops, assembly, onDrops, says } = props;
  const fields = [
    ["wide", "Roll, width"],
    ["long", "Roll, length"],
    ["trim", "Trim of a drop"],
    ["repeat", "Repeat of the pattern"],
  ] as const;
  return (
    <>
      {fields.map(([field, label]) => (
        <Input
          key={field}
          label={label}
          value={drops[field]}
          wrong={says(field)}
          onType={(text) => onDrops({ ...drops, [field]: text })}
        />
      ))}
      <Choice
        label="Height of a drop"
        value={assembly.questions.some((q) => q.id === drops.height) ? drops.height : ""}
        none="choose the question that asks it"
        wrong={says("height")}
        options={assembly.questions.map((q) => [q.id, q.text])}
        onChoose={(height) => onDrops({ ...drops, height })}
      />
    </>
  );
}
