import type { ReactNode } from "react";
import styles from "./check.module.css";

interface Props {
  on: boolean;
  /** On for some of what it stands for, and not for all. */
  half?: boolean;
  onTick: (on: boolean) => void;
  /** What it is called where there are no words beside it. */
  name?: string;
  wrong?: string;
  children?: ReactNode;
}

/** Yes or no. */
export function Check({ on, half = false, onTick, name, wrong, children }: Props) {
  return (
    <label className={styles.check}>
      <input
        type="checkbox"
        aria-label={name}
        checked={on}
        ref={(box) => {
          if (box) box.indeterminate = half;
        }}
        onChange={(e) => onTick(e.target.checked)}
      />
      {children && <span>{children}</span>}
      {wrong && (
        <span className={`error ${styles.wrong}`} role="alert">
          {wrong}
        </span>
      )}
    </label>
  );
}
