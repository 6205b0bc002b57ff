import type { ReactNode } from "react";
import styles from "./field.module.css";

/** What is wrong with a field, or else what helps; its id is the field's with `says`. */
export function Says({ id, wrong, hint }: { id: string; wrong?: string; hint?: ReactNode }) {
  if (!wrong && !hint) return null;
  return (
    <span id={`${id}says`} className={`${styles.says} ${wrong ? "error" : "note"}`} role={wrong ? "alert" : undefined}>
      {wrong || hint}
    </span>
  );
}
