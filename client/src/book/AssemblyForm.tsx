import { useState } from "react";
import { newId } from "../api/client";
import { Figure } from "../figure/Figure";
import { ChoiceOf, Rows, TextOf, measureOptions, unitOptions, useNamed } from "./fields";
import { PartForm, blankPart } from "./PartForm";
import type { Tried } from "./TryIt";
import { WorkFields } from "./WorkForms";
import { type Assembly, type Component, useEditing } from "./useEntry";
import styles from "./book.module.css";

/** The parts of an assembly, what drives each, and what each comes to in the trial beside it. */
export function AssemblyForm({ tried }: { tried: Tried | undefined }) {
  const { view, set, change } = useEditing();
  const assembly = view.entry as Assembly;
  const named = useNamed();
  const [open, setOpen] = useState<string | null>(null);

  /** What its parts are driven by: it is led by one of these. */
  const drivers = measureOptions.filter(
    ([m]) => assembly.components.some((c) => c.measure === m) || assembly.questions.some((q) => q.from === m),
  );
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
              <tr key={part.id} className={open === part.id ? styles.open : undefined}>
                <td>
                  <button
                    className={styles.partname}
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
                  {part.question && <span className={styles.asked}>asked</span>}
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
                      part={part}
                      index={i}
                      isNew={false}
                      onDone={() => setOpen(null)}
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
      {open === "new" ? (
        <PartForm
          part={blankPart(assembly, named.find((n) => n.kind === "role")?.id ?? null)}
          index={assembly.components.length}
          isNew
          onDone={() => setOpen(null)}
          move={() => undefined}
          remove={() => Promise.resolve()}
        />
      ) : (
        <button className="link" onClick={() => setOpen("new")}>
          Add a part
        </button>
      )}
      <Rows
        title="Questions"
        path="questions"
        add="Ask something when it is used"
        blank={() => ({ id: newId(), text: "New question", unit: "ft", usual: "0", from: null })}
      >
        {(path) => (
          <>
            <TextOf label="Question" path={`${path}.text`} />
            <ChoiceOf label="Answer in" path={`${path}.unit`} options={unitOptions} />
            <TextOf label="Usual answer" path={`${path}.usual`} />
            <ChoiceOf label="Or from the place's" path={`${path}.from`} options={measureOptions} none="nothing: ask" />
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
