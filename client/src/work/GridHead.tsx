import type { ReactNode } from "react";
import type { Work } from "../api/client";
import { Figure } from "../figure/Figure";
import { placeWidth } from "./GridRow";
import type { GridProps } from "./ScopeGrid";
import styles from "./work.module.css";
import { classes } from "../controls/classes";

const words = { hours: "Hours", quantity: "Quantity", cost: "Cost", price: "Price" };

interface Props extends GridProps {
  lefts: number[];
  from: number;
  to: number;
  width: number;
  onColumn: (column: number) => void;
}

/** Sections, work and its sums, over the columns; it stays while places scroll. */
export function GridHead(props: Props) {
  const { layout, lefts, frozen, shows, tally } = props;
  const { columns, sections } = layout;
  // Columns that share a name say which section they are of; the section over them may be out of sight, or its name cut.
  const named = new Map<string, number>();
  for (const column of columns)
    if (column.kind !== "folded") named.set(column.work.name, (named.get(column.work.name) ?? 0) + 1);
  const nameOf = (work: Work) => ((named.get(work.name) ?? 0) > 1 ? `${work.section}: ${work.name}` : work.name);
  const shown = columns.map((_, c) => c).filter((c) => c < frozen || (c >= props.from && c < props.to));
  const place = (c: number, to = c + 1) => ({
    left: placeWidth + lefts[c]!,
    width: lefts[to]! - lefts[c]!,
    position: c < frozen ? ("sticky" as const) : undefined,
  });
  /** A cell over a column; over a folded section only its name is read out. */
  const cell = (c: number, role: "columnheader" | "gridcell", of: (work: Work) => ReactNode) => {
    const column = columns[c]!;
    const folded = column.kind === "folded";
    return (
      <div
        key={folded ? `f${column.section}` : column.work.id}
        role={role}
        aria-colindex={c + 2}
        aria-label={folded ? column.section : undefined}
        className={classes(styles.gc, column.first && styles.first, c < frozen && styles.frozen)}
        style={place(c)}
      >
        {!folded && of(props.works.get(column.work.id) ?? column.work)}
      </div>
    );
  };
  const total = shows === "cost" ? tally.cost : shows === "price" ? tally.beforeTax : tally.worked;
  return (
    <div className={styles.ghead} role="rowgroup" style={{ width: props.width }}>
      <div className={`${styles.gr} ${styles.sections}`} role="row" aria-rowindex={1}>
        <div role="columnheader" className={styles.place} aria-label="Section" />
        {sections
          .flatMap((s) =>
            // A section that begins among the frozen columns and ends beyond them is named in both.
            s.from < frozen && s.to > frozen
              ? [
                  { ...s, to: frozen },
                  { ...s, from: frozen },
                ]
              : [s],
          )
          .filter((s) => s.from < frozen || (s.to > props.from && s.from < props.to))
          .map((s) => (
            <div
              key={`${s.section}${s.from}`}
              role="columnheader"
              aria-colindex={s.from + 2}
              aria-colspan={s.to - s.from}
              className={classes(styles.gc, styles.first, s.from < frozen && styles.frozen)}
              style={place(s.from, s.to)}
            >
              <button
                className={styles.headbutton}
                aria-expanded={!s.folded}
                title={s.folded ? `Show the work of ${s.section}` : `Fold ${s.section}`}
                onClick={() => props.onFold({ section: s.section })}
              >
                {s.folded ? <span aria-hidden="true">▸</span> : null} {s.section}
              </button>
            </div>
          ))}
        <div className={styles.sum} role="columnheader" aria-label="In all" />
      </div>
      <div className={`${styles.gr} ${styles.names}`} role="row" aria-rowindex={2}>
        <div role="columnheader" className={styles.place}>
          Place
        </div>
        {shown.map((c) =>
          cell(c, "columnheader", (work) => (
            <button
              className={styles.headbutton}
              title={`Select ${work.section}: ${work.name} in every place`}
              onClick={() => props.onColumn(layout.workAt.get(work.id)!)}
            >
              {nameOf(work)}
            </button>
          )),
        )}
        <div className={styles.sum} role="columnheader">
          {shows === "quantity" ? "Hours" : words[shows]}
        </div>
      </div>
      <div className={`${styles.gr} ${styles.sums}`} role="row" aria-rowindex={3}>
        <div role="rowheader" className={styles.place}>
          {words[shows]}
        </div>
        {shown.map((c) =>
          cell(c, "gridcell", (work) => {
            const figure =
              shows === "hours"
                ? work.hours
                : shows === "quantity"
                  ? work.quantity
                  : props.workMoney.get(work.id)?.[shows];
            return figure && <Figure figure={figure} label={`${work.section}: ${work.name}`} />;
          }),
        )}
        <div className={styles.sum} role="gridcell">
          <Figure
            figure={total}
            label={
              shows === "price" ? "Price before tax" : shows === "cost" ? "Cost of the job" : "Labour hours of the work"
            }
          />
        </div>
      </div>
    </div>
  );
}
