import type { ReactNode } from "react";
import styles from "./PageHead.module.css";

/** The head of a page of the rail: what it is, and what can be done with all of it. */
export function PageHead({ title, children }: { title: string; children: ReactNode }) {
  return (
    <header className={styles.head}>
      <h1>{title}</h1>
      {children}
    </header>
  );
}
