import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import styles from "./money.module.css";

interface Props {
  label?: string;
  rows: readonly Schemas["MoneyRow"][];
  /** What comes after them: a total, or what is done about it. */
  children?: ReactNode;
}

/** Rows of money: what it is, more about it, the amount. */
export function MoneyRows({ label, rows, children }: Props) {
  return (
    <ul className={styles.rows} aria-label={label}>
      {rows.map((row, at) => (
        <MoneyRow key={at} label={row.label} detail={row.detail}>
          <b>{row.amount}</b>
        </MoneyRow>
      ))}
      {children}
    </ul>
  );
}

/** One of them, with whatever stands at its end. */
export function MoneyRow({ label, detail, children }: { label: ReactNode; detail?: ReactNode; children: ReactNode }) {
  return (
    <li>
      <span>
        {label}
        {detail && <small>{detail}</small>}
      </span>
      {children}
    </li>
  );
}
