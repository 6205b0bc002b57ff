import { counted } from "../controls/counted";
import { memo } from "react";
import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import { GridCell } from "../figure/GridCell";
import type { GridProps } from "./ScopeGrid";
import type { Column, Layout, Row } from "./layout";
import styles from "./work.module.css";
import { classes } from "../controls/classes";

export const placeWidth = 152;
export const heights = { group: 26, place: 33 };

interface Props {
  row: Row;
  index: number;
  top: number;
  layout: Layout;
  lefts: number[];
  from: number;
  to: number;
  frozen: number;
  shows: GridProps["shows"];
  cells: GridProps["cells"];
  money: GridProps["money"];
  total: Schemas["FigureView"] | null | undefined;
  selectFrom: number;
  selectTo: number;
  current: number;
  onRow: () => void;
  onFold: GridProps["onFold"];
}

/** A place with its cells, or the heading over places; only the columns that are on screen, and those that stay. */
export const GridRow = memo(
  function GridRow(props: Props) {
    const { row, layout, lefts, frozen, cells } = props;
    const style = { transform: `translateY(${props.top}px)`, height: heights[row.kind] };
    if (row.kind === "group")
      return (
        <div className={`${styles.gr} ${styles.group}`} role="row" aria-rowindex={props.index + 4} style={style}>
          <div role="rowheader" className={styles.place}>
            <button
              className={styles.headbutton}
              aria-expanded={!row.folded}
              onClick={() => props.onFold({ group: row.group })}
              title={row.folded ? `Show the places of ${row.group}` : `Fold ${row.group}`}
            >
              <span aria-hidden="true">{row.folded ? "▸" : "▾"}</span> {row.group}
              {row.folded && <small> {counted(row.places.length, "place")}</small>}
            </button>
          </div>
        </div>
      );
    const { place } = row;
    const shown = [];
    for (let c = 0; c < layout.columns.length; c++) if (c < frozen || (c >= props.from && c < props.to)) shown.push(c);
    return (
      <div className={styles.gr} role="row" aria-rowindex={props.index + 4} style={style}>
        <div role="rowheader" className={styles.place}>
          <button className={styles.headbutton} title={`Select all work in ${place.name}`} onClick={props.onRow}>
            {place.name}
          </button>
          {/* Never cut off with a long name: it multiplies all that stands beside it. */}
          {place.count > 1 && <span>&nbsp;×{place.count}</span>}
        </div>
        {shown.map((c) => cell(c, layout.columns[c]!))}
        <div className={styles.sum} role="gridcell" aria-colindex={layout.columns.length + 2}>
          {props.total && <Figure figure={props.total} label={`${place.name}, in all`} />}
        </div>
      </div>
    );

    function cell(c: number, column: Column) {
      const left = placeWidth + lefts[c]!;
      const width = lefts[c + 1]! - lefts[c]!;
      if (column.kind === "folded") {
        const done = column.work.filter((w) => cells.has(`${w.id}/${place.id}`)).length;
        return (
          <div
            key={`f${column.section}`}
            role="gridcell"
            aria-colindex={c + 2}
            aria-label={`${column.section}, folded, ${place.name}: ${done} of ${column.work.length}`}
            className={classes(styles.gc, styles.first, styles.folded, c < frozen && styles.frozen)}
            style={{ left, width, position: c < frozen ? "sticky" : undefined }}
          >
            {done > 0 ? `${done} of ${column.work.length}` : "·"}
          </div>
        );
      }
      const { work } = column;
      const at = layout.workAt.get(work.id)!;
      const key = `${work.id}/${place.id}`;
      return (
        <GridCell
          key={work.id}
          name={`${work.section}: ${work.name}, ${place.name}`}
          work={work.id}
          place={place.id}
          unit={work.unit}
          cell={cells.get(key)}
          money={props.money.get(key)}
          shows={props.shows}
          selected={at >= props.selectFrom && at <= props.selectTo}
          current={at === props.current}
          column={c + 2}
          left={left}
          width={width}
          className={classes(styles.gc, column.first && styles.first, c < frozen && styles.frozen)}
          frozen={c < frozen}
        />
      );
    }
  },
  (a, b) =>
    a.row === b.row &&
    a.top === b.top &&
    a.layout === b.layout &&
    a.lefts === b.lefts &&
    a.from === b.from &&
    a.to === b.to &&
    a.frozen === b.frozen &&
    a.shows === b.shows &&
    a.cells === b.cells &&
    a.money === b.money &&
    a.total === b.total &&
    a.selectFrom === b.selectFrom &&
    a.selectTo === b.selectTo &&
    a.current === b.current,
);
