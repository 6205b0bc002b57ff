import { type ReactNode, useId } from "react";
import styles from "./check.module.css";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; words: ReactNode; small?: string; closed?: boolean }[];
  onChoose: (value: T) => void;
  children?: ReactNode;
}

/** One of a few, all to be seen at once; what belongs to the one that is chosen stands below. */
export function Radios<T extends string>({ label, value, options, onChoose, children }: Props<T>) {
  const name = useId();
  return (
    <fieldset className={styles.radios}>
      <legend>{label}</legend>
      {options.map((option) => (
        <label key={option.value} className={styles.radio}>
          <input
            type="radio"
            name={name}
            disabled={option.closed}
            checked={value === option.value}
            onChange={() => onChoose(option.value)}
          />
          <span>
            {option.words}
            {option.small && <small>{option.small}</small>}
          </span>
        </label>
      ))}
      {children}
    </fieldset>
  );
}
