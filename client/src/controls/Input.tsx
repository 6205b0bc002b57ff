import { type ChangeEvent, type InputHTMLAttributes, type ReactNode, type Ref, useId } from "react";
import { Says } from "./Says";
import styles from "./field.module.css";

interface Props extends Pick<
  InputHTMLAttributes<HTMLInputElement>,
  "placeholder" | "maxLength" | "inputMode" | "onKeyDown" | "onFocus" | "onBlur" | "min" | "max"
> {
  label: string;
  /** Where the place says what it is: the label is only read out. */
  bare?: boolean;
  /** Its label beside it, where many stand under each other. */
  row?: boolean;
  /** At the head of a list, to find what stands in it. */
  find?: boolean;
  type?: "text" | "search" | "number" | "password";
  /** Several lines. */
  rows?: number;
  value: string;
  onType: (text: string) => void;
  unit?: string;
  hint?: ReactNode;
  /** What is wrong with it. */
  wrong?: string;
  focus?: boolean;
  inputRef?: Ref<HTMLInputElement>;
}

/** A line, or several, that is typed and handed on letter by letter; whoever holds it says what is wrong. A field that saves by itself is Field. */
export function Input(props: Props) {
  const { label, bare, row, find, value, onType, unit, hint, wrong, focus, inputRef, rows, ...more } = props;
  const id = useId();
  const says = wrong || hint;
  const common = {
    id,
    className: styles.entry,
    autoFocus: focus,
    value,
    "aria-invalid": wrong ? true : undefined,
    "aria-describedby": says ? `${id}says` : undefined,
    onChange: (e: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => onType(e.target.value),
  };
  return (
    <div
      className={[styles.field, row && styles.row, bare && styles.bare, find && styles.find].filter(Boolean).join(" ")}
    >
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <span className={styles.box}>
        {rows ? (
          <textarea {...common} rows={rows} placeholder={more.placeholder} maxLength={more.maxLength} />
        ) : (
          <input {...more} {...common} ref={inputRef} autoComplete="off" />
        )}
        {unit && <i className={styles.unit}>{unit}</i>}
      </span>
      <Says id={id} wrong={wrong} hint={hint} />
    </div>
  );
}
