import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useContext, useEffect, useMemo, useRef } from "react";
import type { Place, Schemas, Work } from "../api/client";
import { CellText } from "../figure/CellText";
import { type Shows, cellPath } from "../figure/cellFigure";
import { WhyContext, useJob } from "../job/JobContext";
import type { Layout } from "./layout";
import type { Asked } from "./ScopeGrid";
import type { Range } from "./range";
import type { useGridEdits } from "./useGridEdits";
import styles from "./work.module.css";
import { classes } from "../controls/classes";

const states = { included: "included", excluded: "excluded", alternate: "alternate" };

type Line = { kind: "head"; words: string } | { kind: "line"; work: Work; place: Place };

/** The same cells as lines, by place or by section: another way in. The line in focus is the selected cell. */
export function LineList(props: {
  by: "place" | "section";
  layout: Layout;
  shows: Shows;
  money: ReadonlyMap<string, Schemas["CellMoney"]>;
  asked: Asked | null;
  range: Range | null;
  onRange: (range: Range) => void;
  edits: ReturnType<typeof useGridEdits>;
}) {
  const { by, layout, shows, range } = props;
  const [, { cells }] = useJob();
  const why = useContext(WhyContext);
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useMemo(() => linesOf(by, layout, (w, p) => cells.has(`${w}/${p}`)), [by, layout, cells]);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (lines[i]!.kind === "head" ? 34 : 33),
    overscan: lines.length <= 300 ? lines.length : 12,
  });
  const at = lines.findIndex((l) => l.kind === "line" && l.work.id === range?.to.work && l.place.id === range.to.place);

  function go(index: number, step: 1 | -1) {
    let i = index;
    while (lines[i]?.kind === "head") i += step;
    const line = lines[i];
    if (line?.kind !== "line") return;
    const here = { work: line.work.id, place: line.place.id };
    props.onRange({ from: here, to: here });
    bring(i, true);
  }

  function bring(index: number, focus: boolean) {
    const line = lines[index];
    if (line?.kind !== "line") return;
    rows.scrollToIndex(index);
    if (!focus) return;
    // It may only be drawn with the next frame.
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>(`[data-line="${line.work.id}/${line.place.id}"]`)?.focus(),
    );
  }

  const { asked } = props;
  useEffect(() => {
    if (asked) bring(at, asked.focus);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each asking, in the list that it made
  }, [asked]);

  function onKey(e: KeyboardEvent) {
    const key = e.key.toLowerCase();
    const line = lines[at];
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (key === "arrowdown") go(at + 1, 1);
    else if (key === "arrowup") go(at - 1, -1);
    else if (key === "home") go(0, 1);
    else if (key === "end") go(lines.length - 1, -1);
    else if (key === "i") props.edits.fill("included");
    else if (key === "o") props.edits.fill("excluded");
    else if (key === "l") props.edits.fill("alternate");
    else if (key === "e" && line?.kind === "line") why(cellPath(line.work.id, line.place.id, shows));
    else return;
    e.preventDefault();
    e.stopPropagation();
  }

  return (
    <div className={`${styles.gridscroll} ${styles.linelist}`} ref={scroller}>
      <div
        role="table"
        aria-label={by === "place" ? "Work by place" : "Work by section"}
        aria-rowcount={lines.length}
        style={{ height: rows.getTotalSize(), position: "relative" }}
        onKeyDown={onKey}
      >
        {rows.getVirtualItems().map((v) => {
          const line = lines[v.index]!;
          const style = { transform: `translateY(${v.start}px)` };
          if (line.kind === "head")
            return (
              <div
                key={`h${v.index}${line.words}`}
                role="row"
                aria-rowindex={v.index + 1}
                className={`${styles.lr} head`}
                style={style}
              >
                <span role="columnheader">{line.words}</span>
              </div>
            );
          const key = `${line.work.id}/${line.place.id}`;
          const cell = cells.get(key)!;
          const here = { work: line.work.id, place: line.place.id };
          const name = by === "place" ? `${line.work.section}: ${line.work.name}` : placeName(line.place);
          return (
            <div
              key={key}
              role="row"
              aria-rowindex={v.index + 1}
              data-line={key}
              tabIndex={v.index === at || (at < 0 && v.index === 1) ? 0 : -1}
              className={classes(styles.lr, v.index === at && styles.current)}
              style={style}
              onFocus={() => v.index !== at && props.onRange({ from: here, to: here })}
              onClick={() => props.onRange({ from: here, to: here })}
            >
              <span role="rowheader">
                {name}
                {cell.differs && <b role="img" className="differs" aria-label="differs from its item" />}
              </span>
              <span role="cell">
                <i className={`cell ${cell.state}`}>{states[cell.state]}</i>
              </span>
              <span role="cell" className="n">
                <CellText {...here} cell={cell} unit={line.work.unit} shows={shows} money={props.money.get(key)} />
              </span>
              <span role="cell" className={styles.said}>
                {cell.note}
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}

const placeName = (place: Place) => (place.count > 1 ? `${place.name} ×${place.count}` : place.name);

function linesOf(by: "place" | "section", layout: Layout, has: (work: string, place: string) => boolean): Line[] {
  const lines: Line[] = [];
  const block = (words: string, of: Line[]) => of.length > 0 && lines.push({ kind: "head", words }, ...of);
  if (by === "place")
    for (const place of layout.places)
      block(
        place.group ? `${place.group} / ${placeName(place)}` : placeName(place),
        layout.work.filter((work) => has(work.id, place.id)).map((work) => ({ kind: "line", work, place })),
      );
  else
    for (const work of layout.work)
      block(
        `${work.section}: ${work.name}`,
        layout.places.filter((place) => has(work.id, place.id)).map((place) => ({ kind: "line", work, place })),
      );
  return lines;
}
