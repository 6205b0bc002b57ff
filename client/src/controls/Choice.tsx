import { useId } from "react";
import { Says } from "./Says";
import styles from "./field.module.css";

/** What can be chosen: its value, its words, and what it stands under, if anything. */
export type Option<T extends string = string> = readonly [value: T, words: string, under?: string];

interface Props<T extends string> {
  label: string;
  /** Where the place says what it is: the label is only read out. */
  bare?: boolean;
  /** Its label beside it, where many stand under each other. */
  row?: boolean;
  value: T | "";
  options: readonly Option<T>[];
  /** What stands when nothing is chosen. */
  none?: string;
  /** Words for a value that is not among the options. */
  lost?: string;
  /** Whether what it is set for does not agree. */
  differ?: boolean;
  /** Options that cannot be chosen now. */
  closed?: readonly T[];
  hint?: string;
  wrong?: string;
  focus?: boolean;
  onChoose: (value: T) => void;
}

/** One of a list. With `none`, nothing can be chosen too, and is given as empty text. */
export function Choice<T extends string>(props: Props<T>) {
  const { label, value, options, none, lost, differ, hint, wrong } = props;
  const id = useId();
  const says = wrong || hint;
  const headings = [...new Set(options.map(([, , under]) => under))];
  const under = (heading?: string) =>
    options
      .filter(([, , of]) => of === heading)
      .map(([option, words]) => (
        <option key={option} value={option} disabled={props.closed?.includes(option)}>
          {words}
        </option>
      ));
  return (
    <div className={[styles.field, props.row && styles.row, props.bare && styles.bare].filter(Boolean).join(" ")}>
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <select
        id={id}
        className={styles.entry}
        autoFocus={props.focus}
        value={differ ? "*" : value}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={says ? `${id}says` : undefined}
        onChange={(e) => props.onChoose(e.target.value as T)}
      >
        {differ && (
          <option value="*" disabled>
            they differ
          </option>
        )}
        {none !== undefined && <option value="">{none}</option>}
        {lost !== undefined && !differ && value !== "" && !options.some(([option]) => option === value) && (
          <option value={value}>{lost}</option>
        )}
        {headings.map((heading) =>
          heading === undefined ? (
            under()
          ) : (
            <optgroup key={heading} label={heading}>
              {under(heading)}
            </optgroup>
          ),
        )}
      </select>
      <Says id={id} wrong={wrong} hint={hint} />
    </div>
  );
}
