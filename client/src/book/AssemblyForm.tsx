import { useId, useState } from "react";
import { newId } from "../api/client";
import { Figure } from "../figure/Figure";
import { Check, Choice, EntryAt, Rows, Text, measureOptions, unitOptions, useNamed } from "./fields";
import type { Tried } from "./TryIt";
import { WorkFields } from "./WorkForms";
import { type Assembly, type Component, useEditing } from "./useEntry";

const kinds = { labour: "role", material: "material", equipment: "equipment", subcontract: "subcontract" } as const;

/** The parts of an assembly, what drives each, and what each comes to in the trial beside it. */
export function AssemblyForm({ tried }: { tried: Tried | undefined }) {
  const { view, set, change } = useEditing();
  const assembly = view.entry as Assembly;
  const named = useNamed();
  const [open, setOpen] = useState<string | null>(null);
  const [wrong, setWrong] = useState("");

  const label = (part: Component) => {
    if (part.measure)
      return `of ${(measureOptions.find(([m]) => m === part.measure)?.[1] ?? part.measure).toLowerCase()}`;
    if (part.question) return assembly.questions.find((q) => q.id === part.question)?.text ?? "a question";
    if (part.of)
      return `of ${assembly.components.find((c) => c.id === part.of)?.name ?? "a part"}${part.asOrdered ? ", as ordered" : ""}`;
    if (part.crew) return `crew of ${part.crew}`;
    return "once per work item and job";
  };
  const much = (part: Component) => {
    if (part.crew) return "while the crew works";
    const depth = part.depth ? ` at ${part.depth}` : part.depthAsked ? " at the thickness asked" : "";
    return `${part.ratio ?? "one"}${depth}${part.perCoat ? ", each coat" : ""}`;
  };

  async function add() {
    const role = named.find((n) => n.kind === "role");
    const id = newId();
    try {
      await change((entry) => {
        const next = entry as Assembly;
        next.components.push({
          ...next.components[0]!,
          id,
          name: "New part",
          kind: "labour",
          entry: role?.id ?? null,
          measure: next.measure,
          of: null,
          question: null,
          crew: null,
          once: false,
          group: "",
          optional: false,
          depth: "",
          depthAsked: null,
          ratio:
            next.components.find((c) => c.measure === next.measure && c.kind === "labour")?.ratio ??
            next.components[0]!.ratio,
        });
        return next;
      });
      setOpen(id);
      setWrong("");
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  const move = (index: number, by: number) =>
    void change((entry) => {
      const next = entry as Assembly;
      const [part] = next.components.splice(index, 1);
      next.components.splice(index + by, 0, part!);
      return next;
    });

  return (
    <>
      <table className="parts">
        <thead>
          <tr>
            <th>Part</th>
            <th>How much</th>
            <th>Driven by</th>
            <th className="n">Try it</th>
          </tr>
        </thead>
        <tbody>
          {assembly.components.map((part, i) => {
            const figure = tried?.parts[part.id];
            return [
              <tr key={part.id} className={open === part.id ? "open" : undefined}>
                <td>
                  <button
                    className="partname"
                    aria-expanded={open === part.id}
                    onClick={() => setOpen(open === part.id ? null : part.id)}
                  >
                    {part.name}
                  </button>
                  <small>
                    {part.kind}
                    {part.optional && ", optional"}
                  </small>
                </td>
                <td>{much(part)}</td>
                <td>
                  {label(part)}
                  {part.question && <span className="asked">asked</span>}
                  {part.wastePercent !== null && <small>+ {part.wastePercent} % waste</small>}
                  {part.group && <small>either-or: {part.group}</small>}
                </td>
                <td className="n">
                  {figure ? <Figure figure={figure} label={part.name} /> : <span className="note">—</span>}
                </td>
              </tr>,
              open === part.id && (
                <tr key={`${part.id}form`}>
                  <td colSpan={4}>
                    <PartForm
                      path={`components[${i}]`}
                      part={part}
                      index={i}
                      last={i === assembly.components.length - 1}
                      move={(by) => move(i, by)}
                      remove={async () => {
                        await set(
                          "components",
                          assembly.components.filter((c) => c.id !== part.id),
                        );
                        setOpen(null);
                      }}
                    />
                  </td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </table>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      <button className="link" onClick={() => void add()}>
        Add a part
      </button>
      <Rows
        title="Questions"
        path="questions"
        add="Ask something when it is used"
        blank={() => ({ id: newId(), text: "New question", unit: "ft", usual: "0", from: null })}
      >
        {(path) => (
          <>
            <Text label="Question" path={`${path}.text`} />
            <Choice label="Answer in" path={`${path}.unit`} options={unitOptions} />
            <Text label="Usual answer" path={`${path}.usual`} />
            <Choice label="Or from the place's" path={`${path}.from`} options={measureOptions} none="nothing: ask" />
          </>
        )}
      </Rows>
      <div className="two">
        <Choice label="Shown by" path="measure" options={measureOptions} />
        <Text label="Usual coats" path="coats" whole />
      </div>
      <Text label="Hazard to be ruled out before work starts" path="hazard" />
      <WorkFields />
    </>
  );
}

/** What drives a part, as one choice. */
function Driver({ path, part }: { path: string; part: Component }) {
  const { view, set } = useEditing();
  const assembly = view.entry as Assembly;
  const [wrong, setWrong] = useState("");
  const id = useId();
  const value = part.measure
    ? `measure/${part.measure}`
    : part.question
      ? `question/${part.question}`
      : part.of
        ? `of/${part.of}`
        : part.crew
          ? "crew"
          : "once";
  return (
    <div className="field">
      <label htmlFor={id}>Driven by</label>
      <select
        id={id}
        value={value}
        aria-invalid={wrong !== ""}
        onChange={(e) => {
          const [by, what] = e.target.value.split("/") as [string, string];
          set(path, {
            ...part,
            measure: by === "measure" ? what : null,
            question: by === "question" ? what : null,
            of: by === "of" ? what : null,
            crew: by === "crew" ? 2 : null,
            once: by === "once",
          }).then(
            () => setWrong(""),
            (error: Error) => setWrong(error.message),
          );
        }}
      >
        <optgroup label="A measure of the place">
          {measureOptions.map(([measure, words]) => (
            <option key={measure} value={`measure/${measure}`}>
              {words}
            </option>
          ))}
        </optgroup>
        {assembly.questions.length > 0 && (
          <optgroup label="A question">
            {assembly.questions.map((q) => (
              <option key={q.id} value={`question/${q.id}`}>
                {q.text}
              </option>
            ))}
          </optgroup>
        )}
        <optgroup label="Another part">
          {assembly.components
            .filter((c) => c.id !== part.id && !c.crew && !c.once)
            .map((c) => (
              <option key={c.id} value={`of/${c.id}`}>
                {c.name}
              </option>
            ))}
        </optgroup>
        <option value="crew">the crew, while it works</option>
        <option value="once">nothing: once per work item and job</option>
      </select>
      {wrong && (
        <span className="error" role="alert">
          {wrong}
        </span>
      )}
    </div>
  );
}

function PartForm(props: {
  path: string;
  part: Component;
  index: number;
  last: boolean;
  move: (by: number) => void;
  remove: () => Promise<void>;
}) {
  const { path, part } = props;
  const { view, set, change } = useEditing();
  const assembly = view.entry as Assembly;
  const named = useNamed();
  const [wrong, setWrong] = useState("");
  const index = Number(/\d+/.exec(path)![0]);
  const say = (error: Error) => setWrong(error.message);
  const groups = [...new Set(assembly.components.map((c) => c.group).filter(Boolean))];
  return (
    <div className="partform" role="group" aria-label={`Part ${part.name}`}>
      <div className="two">
        <Text label="Part" path={`${path}.name`} />
        <div className="field">
          <label htmlFor={`${part.id}kind`}>Costs as</label>
          <select
            id={`${part.id}kind`}
            value={part.kind}
            onChange={(e) => {
              const kind = e.target.value as Component["kind"];
              const entry = kind === "charge" ? null : (named.find((n) => n.kind === kinds[kind])?.id ?? null);
              set(path, {
                ...part,
                kind,
                entry,
                crew: kind === "equipment" ? part.crew : null,
                scales: kind === "labour",
              }).then(() => setWrong(""), say);
            }}
          >
            {["labour", "material", "equipment", "subcontract", "charge"].map((k) => (
              <option key={k}>{k}</option>
            ))}
          </select>
        </div>
        {part.kind === "charge" ? (
          <Text label="Money for one" path={`${path}.charge`} />
        ) : (
          <EntryAt
            key={part.kind}
            label={
              { labour: "Role", material: "Material", equipment: "Equipment", subcontract: "Subcontract" }[part.kind]
            }
            kinds={[kinds[part.kind]]}
            path={`${path}.entry`}
          />
        )}
        <Driver path={path} part={part} />
        {part.crew ? (
          <Text label="Crew" path={`${path}.crew`} whole unit="people" />
        ) : (
          <Text
            label="How much"
            path={`${path}.ratio`}
            optional={part.once}
            hint="like 1 t per 31 m², 0.42 t per h, 1 h per 18 m"
          />
        )}
        {part.kind === "material" && (
          <Text label="Waste instead of the material's own" path={`${path}.wastePercent`} optional unit="%" />
        )}
        {part.of && <Check label="Takes its driver as ordered, with waste" path={`${path}.asOrdered`} />}
      </div>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      <details>
        <summary>Layer, coats, either-or, rounding, words</summary>
        <div className="two">
          <Text label="Thickness of the layer" path={`${path}.depth`} hint="like 50 mm; makes a volume of an area" />
          <Choice
            label="Or thickness from a question"
            path={`${path}.depthAsked`}
            options={assembly.questions.map((q) => [q.id, q.text] as const)}
            none="—"
          />
          <Text label="Loose on built, or bulking" path={`${path}.compactionPercent`} unit="%" />
          <Text label="Round its amount in a line up to" path={`${path}.step`} optional />
          <Text label="What the customer reads of it" path={`${path}.wording`} />
          <Text label="What the crew reads of it" path={`${path}.crewNote`} />
        </div>
        <EitherOr assembly={assembly} index={index} groups={groups} change={change} />
        <Check label="Optional: left out unless taken" path={`${path}.optional`} />
        <Check label="Once for each coat" path={`${path}.perCoat`} />
        <Check label="Difficulty scales it" path={`${path}.scales`} />
        {part.kind === "material" && <Check label="Takes the colour chosen" path={`${path}.coloured`} />}
      </details>
      <p className="partacts">
        <button className="link" disabled={props.index === 0} onClick={() => props.move(-1)}>
          Up
        </button>
        <button className="link" disabled={props.last} onClick={() => props.move(1)}>
          Down
        </button>
        <button className="link warn" onClick={() => props.remove().then(() => setWrong(""), say)}>
          Take the part out
        </button>
      </p>
    </div>
  );
}

/** Puts a part into an either-or group with another; a group needs two, so both are set at once. */
function EitherOr(props: {
  assembly: Assembly;
  index: number;
  groups: string[];
  change: ReturnType<typeof useEditing>["change"];
}) {
  const { assembly, index, change } = props;
  const part = assembly.components[index]!;
  const others = assembly.components.filter((c) => c.id !== part.id && c.kind === part.kind);
  const partner = assembly.components.find((c) => c.id !== part.id && c.group !== "" && c.group === part.group);
  const [wrong, setWrong] = useState("");
  return (
    <div className="field">
      <label htmlFor={`${part.id}group`}>Either this or</label>
      <select
        id={`${part.id}group`}
        value={partner?.id ?? ""}
        onChange={(e) =>
          change((entry) => {
            const next = entry as Assembly;
            const own = next.components[index]!;
            const other = next.components.find((c) => c.id === e.target.value);
            const left = own.group;
            own.group = other ? other.group || other.name : "";
            if (other) other.group = own.group;
            // Nobody stays alone in a group.
            const rest = next.components.filter((c) => c.group === left && c.id !== own.id);
            if (left && left !== own.group && rest.length === 1) rest[0]!.group = "";
            return next;
          }).then(
            () => setWrong(""),
            (error: Error) => setWrong(error.message),
          )
        }
      >
        <option value="">no other part</option>
        {others.map((c) => (
          <option key={c.id} value={c.id}>
            {c.name}
          </option>
        ))}
      </select>
      {wrong && (
        <span className="error" role="alert">
          {wrong}
        </span>
      )}
    </div>
  );
}
