import type { ReactNode } from "react";
import { Field } from "../controls/Field";
import { useChoices } from "./choices";
import { Choice, type Option } from "../controls/Choice";
import { Check } from "../controls/Check";
import styles from "./work.module.css";

interface ChoiceProps {
  label: string;
  value: string;
  /** What stands when nothing is chosen here. */
  none?: string;
  options: readonly Option[];
  /** Whether what it is set for does not agree. */
  differ?: boolean;
  onChoose: (value: string) => void;
}

/** A setting chosen from a list. */
export function Setting(props: ChoiceProps) {
  return (
    <li className={styles.stack}>
      <Choice {...props} lost={props.options.length > 0 ? "what this job has; not in the Book any more" : undefined} />
    </li>
  );
}

/** A setting that is typed; what is empty falls back. */
export function Typed(props: {
  label: string;
  value: string;
  hint?: string;
  rows?: number;
  /** Whether what it is set for does not agree. */
  differ?: boolean;
  onKeep: (text: string) => Promise<void>;
}) {
  return (
    <li className={styles.stack}>
      <Field
        label={props.label}
        value={props.value}
        hint={props.differ ? "they differ" : props.hint}
        rows={props.rows}
        onKeep={(text) => props.onKeep(text.trim())}
      />
    </li>
  );
}

/** Parts that stand open; who goes from cell to cell does not open them again at each. */
const opened = new Set<string>();

/** Settings that belong together, folded unless one of them is set or the part was opened before. */
export function Part(props: {
  title: string;
  /** What it is called among the parts that stand open, where its title changes. */
  name?: string;
  open?: boolean;
  children: ReactNode;
}) {
  const { name = props.title } = props;
  return (
    <li className={styles.stack}>
      <details
        open={props.open || opened.has(name)}
        onToggle={(e) => {
          if (e.currentTarget.open) opened.add(name);
          else opened.delete(name);
        }}
      >
        <summary>{props.title}</summary>
        <ul className="rows">{props.children}</ul>
      </details>
    </li>
  );
}

/** Conditions chosen from the Book's, for one thing or for several: each with its own list. */
export function ConditionChecks({
  chosen,
  onChange,
}: {
  chosen: readonly (readonly string[])[];
  onChange: (now: (was: readonly string[]) => string[]) => void;
}) {
  const all = useChoices("condition");
  return all.map((c) => {
    const on = chosen.filter((of) => of.includes(c.id)).length;
    return (
      <Check
        key={c.id}
        on={on === chosen.length}
        half={on > 0 && on < chosen.length}
        onTick={(tick) =>
          onChange((was) => (tick ? [...was.filter((x) => x !== c.id), c.id] : was.filter((x) => x !== c.id)))
        }
      >
        {c.name} <span className="note">{c.says}</span>
      </Check>
    );
  });
}
