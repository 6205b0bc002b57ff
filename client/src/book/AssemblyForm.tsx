import { useState } from "react";
import { newId } from "../api/client";
import { toggled } from "../controls/toggled";
import { unitOptions } from "../controls/units";
import { Figure } from "../figure/Figure";
import { useMeasures } from "../controls/useMeasures";
import { CheckOf, ChoiceOf, Rows, TextOf } from "./fields";
import { drafted } from "./drafts";
import { PartForm, blankPart } from "./PartForm";
import type { Tried } from "./TryIt";
import { WorkFields } from "./WorkForms";
import { type Assembly, type Component, useEditing } from "./useEntry";
import styles from "./book.module.css";

/** The parts of an assembly, what drives each, and what each comes to in the trial beside it. */
export function AssemblyForm({ tried }: { tried: Tried | undefined }) {
  const { view, set, change } = useEditing();
  const assembly = view.entry as Assembly;
  const measures = useMeasures();
  // What was begun at a part stays, whatever else is opened or looked at meanwhile.
  const begun = `${assembly.id} part `;
  const [opened, setOpened] = useState<ReadonlySet<string>>(() => new Set(drafted(begun)));
  const isOpen = (part: string) => opened.has(part);
  const toggle = (part: string) => setOpened((now) => toggled(now, part));

  /** What its parts are driven by: it is led by one of these. */
  const drivers = measures.options.filter(
    ([m]) => assembly.components.some((c) => c.measure === m) || assembly.questions.some((q) => q.from === m),
  );
  const label = (part: Component) => {
    if (part.measure) return `of ${measures.labelOf(part.measure).toLowerCase()}`;
    if (part.question) return assembly.questions.find((q) => q.id === part.question)?.text ?? "a question";
    if (part.of)
      return `of ${assembly.components.find((c) => c.id === part.of)?.name ?? "a part"}${part.asOrdered ? ", as ordered" : ""}`;
    if (part.crew) return `crew of ${part.crew}`;
    return "once per work item and job";
  };
  const much = (part: Component) => {
    if (part.crew) return "while the crew works";
    if (part.drops) return `drops of rolls ${part.drops.wide} × ${part.drops.long}`;
    const depth = part.depth ? ` at ${part.depth}` : part.depthAsked ? " at the thickness asked" : "";
    return `${part.ratio ?? "one"}${depth}${part.perCoat ? ", each coat" : ""}`;
  };

  const move = (index: number, by: number) =>
    void change((entry) => {
      const next = entry as Assembly;
      const [part] = next.components.splice(index, 1);
      next.components.splice(index + by, 0, part!);
      return next;
    });

  return (
    <>
      <table className={styles.parts}>
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
              <tr key={part.id} className={isOpen(part.id) ? styles.open : undefined}>
                <td>
                  <button className={styles.partname} aria-expanded={isOpen(part.id)} onClick={() => toggle(part.id)}>
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
                  {part.question && <span className={styles.asked}>asked</span>}
                  {part.wastePercent !== null && <small>+ {part.wastePercent} % waste</small>}
                  {part.group && <small>either-or: {part.group}</small>}
                </td>
                <td className="n">
                  {figure ? <Figure figure={figure} label={part.name} /> : <span className="note">—</span>}
                </td>
              </tr>,
              isOpen(part.id) && (
                <tr key={`${part.id}form`}>
                  <td colSpan={4}>
                    <PartForm
                      part={part}
                      index={i}
                      isNew={false}
                      onDone={() => toggle(part.id)}
                      move={(by) => move(i, by)}
                      remove={async () => {
                        await set(
                          "components",
                          assembly.components.filter((c) => c.id !== part.id),
                        );
                        toggle(part.id);
                      }}
                    />
                  </td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </table>
      {isOpen("new") || assembly.components.length === 0 ? (
        <PartForm
          part={blankPart(assembly)}
          index={assembly.components.length}
          isNew
          onDone={() => isOpen("new") && toggle("new")}
          move={() => undefined}
          remove={() => Promise.resolve()}
        />
      ) : (
        <button className="link" onClick={() => toggle("new")}>
          Add a part
        </button>
      )}
      <Rows
        title="Questions"
        path="questions"
        add="Ask something when it is used"
        blank={() => ({ id: newId(), text: "", unit: "ft", usual: "", from: null as string | null, once: false })}
      >
        {(path) => (
          <>
            <TextOf label="Question" path={`${path}.text`} />
            <ChoiceOf label="Answer in" path={`${path}.unit`} options={unitOptions("length", "area", "count")} />
            <CheckOf label="Asked once for the job" path={`${path}.once`} hint="otherwise at each place" />
            <TextOf label="Usual answer" path={`${path}.usual`} />
            <ChoiceOf
              label="Or from the place's"
              path={`${path}.from`}
              options={measures.options}
              none="nothing: ask"
            />
          </>
        )}
      </Rows>
      <div className="two">
        {drivers.length > 1 ? (
          <ChoiceOf label="Led by" path="measure" options={drivers} />
        ) : (
          <p className="note">
            {drivers.length === 1
              ? `Led by ${drivers[0]![1].toLowerCase()}, as its parts are.`
              : "No part goes by a measure of the place."}
          </p>
        )}
        <TextOf label="Usual coats" path="coats" whole />
      </div>
      <TextOf label="Hazard to be ruled out before work starts" path="hazard" />
      <WorkFields />
    </>
  );
}
