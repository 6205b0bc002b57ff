import type { ReactNode } from "react";
import { Field } from "../figure/Field";
import { useChoices } from "./choices";

interface ChoiceProps {
  label: string;
  value: string;
  /** What stands when nothing is chosen here. */
  none?: string;
  options: readonly (readonly [string, string])[];
  onChoose: (value: string) => void;
}

/** A setting chosen from a list. */
export function Setting({ label, value, none, options, onChoose }: ChoiceProps) {
  return (
    <li className="stack">
      <label>
        <span className="note">{label}</span>
        <select value={value} onChange={(e) => onChoose(e.target.value)}>
          {none !== undefined && <option value="">{none}</option>}
          {options.map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
    </li>
  );
}

/** A setting that is typed; what is empty falls back. */
export function Typed(props: {
  label: string;
  value: string;
  hint?: string;
  rows?: number;
  onKeep: (text: string) => Promise<void>;
}) {
  return (
    <li className="stack">
      <Field
        key={props.value}
        label={props.label}
        value={props.value}
        hint={props.hint}
        rows={props.rows}
        onKeep={(text) => props.onKeep(text.trim())}
      />
    </li>
  );
}

/** Settings that belong together, folded unless one of them is set. */
export function Part({ title, open, children }: { title: string; open?: boolean; children: ReactNode }) {
  return (
    <li className="stack">
      <details open={open}>
        <summary>{title}</summary>
        <ul className="rows">{children}</ul>
      </details>
    </li>
  );
}

/** Conditions chosen from the Book's. */
export function ConditionChecks({
  chosen,
  onChange,
}: {
  chosen: readonly string[];
  onChange: (now: string[]) => void;
}) {
  const all = useChoices("condition");
  return all.map((c) => (
    <label className="check" key={c.id}>
      <input
        type="checkbox"
        checked={chosen.includes(c.id)}
        onChange={(e) => onChange(e.target.checked ? [...chosen, c.id] : chosen.filter((x) => x !== c.id))}
      />{" "}
      {c.name}
    </label>
  ));
}
