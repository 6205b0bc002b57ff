import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, memo, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Cell, Place, Schemas, Work } from "../api/client";
import { type Shows, cellPath, inMoney } from "../figure/cellFigure";
import { WhyContext } from "../job/JobContext";
import { GridHead } from "./GridHead";
import { GridRow, heights, placeWidth } from "./GridRow";
import type { Layout } from "./layout";
import type { Box, CellAt, Range } from "./range";
import type { useGridEdits } from "./useGridEdits";
import styles from "./work.module.css";

const foldedWidth = 44;
/** Of sections, names and sums. */
const headHeight = 92;

/** Below this many cells all of them are there at once, so that the browser's own search finds them. */
const few = 1600;

/** A cell to be brought into view, and whether the keyboard goes there; each asking is a new one. */
export interface Asked {
  at: CellAt;
  focus: boolean;
}

export interface GridProps {
  layout: Layout;
  cells: ReadonlyMap<string, Cell>;
  /** Work and places with their figures as they are now. */
  works: ReadonlyMap<string, Work>;
  places: ReadonlyMap<string, Place>;
  tally: Schemas["TallyView"];
  shows: Shows;
  money: ReadonlyMap<string, Schemas["CellMoney"]>;
  placeMoney: ReadonlyMap<string, Schemas["MoneyOfPlace"]>;
  workMoney: ReadonlyMap<string, Schemas["MoneyOfWork"]>;
  frozen: number;
  asked: Asked | null;
  range: Range | null;
  box: Box;
  onRange: (range: Range) => void;
  edits: ReturnType<typeof useGridEdits>;
  onFold: (what: { group?: string; section?: string }) => void;
  onSheet: () => void;
}

/** Places down, work across by section. Only what is on screen is drawn. The selected rectangle is filled, copied and cleared by key. */
export const ScopeGrid = memo(function ScopeGrid(props: GridProps) {
  const { layout, shows, frozen, box, edits, cells } = props;
  const why = useContext(WhyContext);
  const scroller = useRef<HTMLDivElement>(null);
  const dragging = useRef<{ x: number; y: number } | null>(null);
  const [room, setRoom] = useState(900);
  const { rows, columns, places, work } = layout;

  useLayoutEffect(() => {
    const watch = new ResizeObserver(([entry]) => setRoom(Math.floor(entry!.contentRect.width)));
    watch.observe(scroller.current!);
    return () => watch.disconnect();
  }, []);

  // Columns share what room there is, between legible and generous.
  const totalWidth = inMoney(shows) ? 92 : 66;
  const least = shows === "hours" ? 52 : shows === "quantity" ? 62 : 76;
  const worked = columns.filter((c) => c.kind === "work").length;
  const spare = room - placeWidth - totalWidth - (columns.length - worked) * foldedWidth;
  const wide = Math.min(104, Math.max(least, spare / Math.max(1, worked)));
  const lefts = useMemo(() => {
    // Whole pixels, so that what is left over does not gather at one end.
    let at = 0;
    return [0, ...columns.map((c) => Math.round((at += c.kind === "work" ? wide : foldedWidth)))];
  }, [columns, wide]);

  const small = rows.length * columns.length <= few;
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => heights[rows[i]!.kind],
    overscan: small ? rows.length : 3,
    useFlushSync: false,
    // Rows lie below the head, which stands over the first of what is in view.
    scrollMargin: headHeight,
    scrollPaddingStart: headHeight,
    scrollPaddingEnd: 8,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => lefts[i + 1]! - lefts[i]!,
    overscan: small ? columns.length : 1,
    useFlushSync: false,
    scrollPaddingStart: placeWidth + (lefts[frozen] ?? 0),
    scrollPaddingEnd: totalWidth,
    paddingStart: placeWidth,
    paddingEnd: totalWidth,
  });
  useEffect(() => across.measure(), [across, wide, columns]);
  useEffect(() => down.measure(), [down, rows]);

  useEffect(() => {
    const stop = () => (dragging.current = null);
    addEventListener("pointerup", stop);
    return () => removeEventListener("pointerup", stop);
  }, []);

  /** Selects the cell at these positions, and takes the keyboard there. */
  function go(column: number, row: number, extend: boolean, byMouse = false) {
    const [c, r] = [Math.max(0, Math.min(column, work.length - 1)), Math.max(0, Math.min(row, places.length - 1))];
    if (!work[c] || !places[r]) return;
    const to = { work: work[c].id, place: places[r].id };
    props.onRange(extend && props.range ? { from: props.range.from, to } : { from: to, to });
    // What is under the mouse stays there.
    if (!byMouse) bring(to);
    wanted.current = `${to.work}/${to.place}`;
  }

  function bring(at: CellAt) {
    const [row, column] = [layout.rowOf.get(at.place), layout.columnOf.get(at.work)];
    // With the first place comes its heading.
    if (row !== undefined) down.scrollToIndex(row === 1 ? 0 : row);
    if (column !== undefined && column >= frozen) across.scrollToIndex(column);
  }

  const { asked } = props;
  useEffect(() => {
    if (!asked) return;
    bring(asked.at);
    if (asked.focus) wanted.current = `${asked.at.work}/${asked.at.place}`;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each asking, in the layout that it made
  }, [asked]);

  // The cell to be focused may only be drawn after scrolling there.
  const wanted = useRef<string | null>(null);
  useEffect(() => {
    if (!wanted.current) return;
    const cell = scroller.current?.querySelector<HTMLElement>(`[data-cell="${wanted.current}"]`);
    if (!cell) return;
    wanted.current = null;
    cell.focus({ preventScroll: true });
  });

  function edge(step: 1 | -1, along: "row" | "column"): number {
    // To where the filled cells end, or the next ones begin, as in any grid of cells.
    const filled = (i: number) =>
      cells.has(`${work[along === "column" ? i : box.column]?.id}/${places[along === "row" ? i : box.row]?.id}`);
    const last = along === "row" ? places.length - 1 : work.length - 1;
    let i = box[along];
    const run = filled(i) && filled(i + step);
    do i += step;
    while (i > 0 && i < last && (run ? filled(i + step) : !filled(i)));
    return Math.max(0, Math.min(i, last));
  }

  function onKey(e: KeyboardEvent) {
    if (!(e.target instanceof HTMLElement) || e.target.getAttribute("role") !== "gridcell" || e.altKey) return;
    const key = e.key.toLowerCase();
    const ctrl = e.ctrlKey || e.metaKey;
    const { column, row } = box;
    const page = Math.max(1, Math.floor((scroller.current!.clientHeight - headHeight) / heights.place));
    if (key === "arrowdown") go(column, ctrl ? edge(1, "row") : row + 1, e.shiftKey);
    else if (key === "arrowup") go(column, ctrl ? edge(-1, "row") : row - 1, e.shiftKey);
    else if (key === "arrowright") go(ctrl ? edge(1, "column") : column + 1, row, e.shiftKey);
    else if (key === "arrowleft") go(ctrl ? edge(-1, "column") : column - 1, row, e.shiftKey);
    else if (key === "pagedown") go(column, row + page, e.shiftKey);
    else if (key === "pageup") go(column, row - page, e.shiftKey);
    else if (key === "home") go(0, ctrl ? 0 : row, e.shiftKey);
    else if (key === "end") go(work.length - 1, ctrl ? places.length - 1 : row, e.shiftKey);
    else if (key === "a" && ctrl) all();
    else if (key === "d" && ctrl) edits.fillDown();
    else if (key === "r" && ctrl) edits.fillAcross();
    else if (ctrl) return;
    else if (key === " " && e.shiftKey) select(0, work.length - 1, box.top, box.bottom);
    else if (key === "i") edits.fill("included");
    else if (key === "o") edits.fill("excluded");
    else if (key === "l") edits.fill("alternate");
    else if (key === "m") edits.takeThere();
    else if (key === "delete" || key === "backspace") edits.fill(null);
    else if (key === " ") edits.fill(stateHere() === "included" ? null : "included");
    else if (key === "e" && stateHere() && stateHere() !== "excluded")
      why(cellPath(work[column]!.id, places[row]!.id, shows));
    else if (key === "-" && work[column]) props.onFold({ section: work[column].section });
    else if (key === "enter") props.onSheet();
    else return;
    e.preventDefault();
    e.stopPropagation();
  }

  const stateHere = () => cells.get(`${work[box.column]?.id}/${places[box.row]?.id}`)?.state;
  const all = () => select(0, work.length - 1, 0, places.length - 1);
  function select(left: number, right: number, top: number, bottom: number) {
    if (!work[left] || !places[top]) return;
    props.onRange({
      from: { work: work[right]!.id, place: places[bottom]!.id },
      to: { work: work[left].id, place: places[top].id },
    });
    wanted.current = `${work[left].id}/${places[top].id}`;
  }

  const cellAt = (target: EventTarget) => {
    const [w, p] = ((target as HTMLElement).closest<HTMLElement>("[data-cell]")?.dataset.cell ?? "/").split("/");
    return { column: work.findIndex((x) => x.id === w), row: places.findIndex((x) => x.id === p) };
  };

  const drawn = down.getVirtualItems();
  // Never fewer than are drawn at once, so that no two rows share a slot.
  const slots = Math.max(64, 2 * drawn.length);
  const placeAt = useMemo(() => new Map(places.map((p, i) => [p.id, i] as const)), [places]);
  const shownColumns = across.getVirtualItems().filter((v) => v.index >= frozen);
  const from = shownColumns[0]?.index ?? frozen;
  const to = (shownColumns.at(-1)?.index ?? frozen - 1) + 1;
  const full = placeWidth + lefts.at(-1)! + totalWidth;

  return (
    <div
      className={styles.gridscroll}
      ref={scroller}
      role="grid"
      aria-label="Scope grid"
      aria-multiselectable="true"
      aria-rowcount={rows.length + 3}
      aria-colcount={columns.length + 2}
      style={{ ["--total" as string]: `${totalWidth}px` }}
      onKeyDown={onKey}
      onCopy={(e) => {
        edits.copy(e.clipboardData);
        e.preventDefault();
      }}
      onPaste={(e) => {
        edits.paste(e.clipboardData);
        e.preventDefault();
      }}
      onPointerDown={(e) => {
        const at = cellAt(e.target);
        if (e.button !== 0 || at.column < 0) return;
        dragging.current = { x: e.clientX, y: e.clientY };
        go(at.column, at.row, e.shiftKey, true);
        e.preventDefault();
      }}
      onPointerOver={(e) => {
        const start = dragging.current;
        // A hand that trembles does not drag.
        if (!start || Math.abs(e.clientX - start.x) + Math.abs(e.clientY - start.y) < 5) return;
        const at = cellAt(e.target);
        if (at.column >= 0 && (at.column !== box.column || at.row !== box.row)) go(at.column, at.row, true, true);
      }}
    >
      <GridHead
        {...props}
        lefts={lefts}
        from={from}
        to={to}
        width={full}
        onColumn={(c) => select(c, c, 0, places.length - 1)}
      />
      <div style={{ height: down.getTotalSize(), width: full, position: "relative" }} role="rowgroup">
        {drawn.map((v) => {
          const row = rows[v.index]!;
          const at = row.kind === "place" ? placeAt.get(row.place.id)! : -1;
          const inside = at >= box.top && at <= box.bottom;
          return (
            <GridRow
              // In a long list a row that leaves lends its elements to the one that comes.
              key={small ? (row.kind === "place" ? row.place.id : `g ${row.group}`) : `${row.kind} ${v.index % slots}`}
              row={row}
              index={v.index}
              top={v.start - headHeight}
              layout={layout}
              lefts={lefts}
              from={from}
              to={to}
              frozen={frozen}
              shows={shows}
              cells={cells}
              money={props.money}
              total={
                row.kind === "place" ? totalOf(props.places.get(row.place.id), shows, props.placeMoney) : undefined
              }
              selectFrom={inside ? box.left : -1}
              selectTo={inside ? box.right : -1}
              current={at === box.row ? box.column : -1}
              onRow={() => select(0, work.length - 1, at, at)}
              onFold={props.onFold}
            />
          );
        })}
      </div>
    </div>
  );
});

function totalOf(
  place: Place | undefined,
  shows: Shows,
  money: GridProps["placeMoney"],
): Schemas["FigureView"] | null | undefined {
  return inMoney(shows) ? money.get(place?.id ?? "")?.[shows] : place?.hours;
}
