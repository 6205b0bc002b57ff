import type { ReactNode } from "react";
import styles from "./sorted.module.css";

/** By which column a list is in order, and whether from large to small. */
export interface Order {
  by: string;
  down: boolean;
}

interface Props {
  /** Name of the column in the order. */
  by: string;
  order: Order;
  /** Whether a first press puts the largest first. */
  largestFirst?: boolean;
  onOrder: (order: Order) => void;
  /** Whether it holds numbers. */
  n?: boolean;
  children: ReactNode;
}

/** A heading that puts its list in order; pressed again, the other way round. */
export function SortedHead({ by, order, largestFirst = false, onOrder, n, children }: Props) {
  const on = order.by === by;
  return (
    <th className={n ? "n" : undefined} aria-sort={!on ? "none" : order.down ? "descending" : "ascending"}>
      <button
        className={`${styles.head} ${on ? styles.on : ""}`}
        onClick={() => onOrder({ by, down: on ? !order.down : largestFirst })}
      >
        {children}
        <span aria-hidden="true">{on ? (order.down ? " ▾" : " ▴") : ""}</span>
      </button>
    </th>
  );
}

/** The rows in that order; what has no value there stands last, whichever way round. */
export function inOrder<T>(rows: readonly T[], order: Order, value: (row: T) => string | number | null): T[] {
  const way = order.down ? -1 : 1;
  return rows.toSorted((one, other) => {
    const [a, b] = [value(one), value(other)];
    if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
    if (typeof a === "number" && typeof b === "number") return way * Math.sign(a - b);
    return way * String(a).localeCompare(String(b), "en", { numeric: true, sensitivity: "base" });
  });
}
