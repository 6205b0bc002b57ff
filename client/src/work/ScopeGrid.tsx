import { Fragment, type KeyboardEvent, useContext, useEffect, useRef } from "react";
import type { Cell, Place, Work } from "../api/client";
import { Figure } from "../figure/Figure";
import { WhyContext, useJob } from "../job/JobContext";
import { cellKey } from "../job/openJob";
import { type CellAt, type Range, holds } from "./range";

interface Props {
  shows: "hours" | "quantity";
  range: Range;
  onRange: (range: Range) => void;
  onFill: (state: "included" | "excluded" | null, at?: CellAt[]) => void;
}

/** Places down, work across by section. The rectangle that is selected is filled and cleared by key or button. */
export function ScopeGrid({ shows, range, onRange, onFill }: Props) {
  const [, { job, cells }] = useJob();
  const why = useContext(WhyContext);
  const grid = useRef<HTMLTableElement>(null);
  const dragging = useRef(false);
  const { work, places } = job;
  const last = { item: work.length - 1, place: places.length - 1 };
  const at = { item: Math.min(range.toItem, last.item), place: Math.min(range.toPlace, last.place) };

  useEffect(() => {
    const stop = () => (dragging.current = false);
    addEventListener("pointerup", stop);
    return () => removeEventListener("pointerup", stop);
  }, []);

  function move(item: number, place: number, extend: boolean) {
    const to = { toItem: Math.max(0, Math.min(item, last.item)), toPlace: Math.max(0, Math.min(place, last.place)) };
    onRange(extend ? { ...range, ...to } : { fromItem: to.toItem, fromPlace: to.toPlace, ...to });
    grid.current?.querySelector<HTMLElement>(`[data-at="${to.toItem},${to.toPlace}"]`)?.focus();
  }

  function onKey(e: KeyboardEvent) {
    const key = e.key.toLowerCase();
    const { item, place } = at;
    if (e.altKey) return;
    if (key === "arrowdown") move(item, place + 1, e.shiftKey);
    else if (key === "arrowup") move(item, place - 1, e.shiftKey);
    else if (key === "arrowright") move(item + 1, place, e.shiftKey);
    else if (key === "arrowleft") move(item - 1, place, e.shiftKey);
    else if (key === "home") move(0, e.ctrlKey ? 0 : place, e.shiftKey);
    else if (key === "end") move(last.item, e.ctrlKey ? last.place : place, e.shiftKey);
    else if (key === "a" && (e.ctrlKey || e.metaKey))
      onRange({ fromItem: 0, fromPlace: 0, toItem: last.item, toPlace: last.place });
    else if (e.ctrlKey || e.metaKey) return;
    else if (key === "i") onFill("included");
    else if (key === "o") onFill("excluded");
    else if (key === "delete" || key === "backspace") onFill(null);
    else if (key === " ") onFill(stateAt(item, place) === "included" ? null : "included");
    else if (key === "e" && stateAt(item, place) === "included")
      why(`cells/${cellKey(work[item]!.id, places[place]!.id)}/${shows}`);
    else return;
    e.preventDefault();
    e.stopPropagation();
  }

  const stateAt = (item: number, place: number) => cells.get(cellKey(work[item]!.id, places[place]!.id))?.state;

  return (
    <div className="gridscroll">
      <table
        className="grid"
        role="grid"
        aria-label="Scope grid"
        aria-multiselectable="true"
        ref={grid}
        onKeyDown={onKey}
      >
        <thead>
          <tr className="sections">
            <th />
            {work.map((w, i) =>
              w.section === work[i - 1]?.section ? null : (
                <th key={w.id} scope="colgroup" colSpan={run(work, i)}>
                  {w.section}
                </th>
              ),
            )}
            <th />
          </tr>
          <tr>
            <th scope="col">Place</th>
            {work.map((w, i) => (
              <th key={w.id} scope="col" className={w.section === work[i - 1]?.section ? undefined : "first"}>
                <button
                  className="headbutton"
                  title={`Select ${w.section}: ${w.name} in every place`}
                  onClick={() => onRange({ fromItem: i, toItem: i, fromPlace: 0, toPlace: last.place })}
                >
                  {w.name}
                </button>
              </th>
            ))}
            <th scope="col" className="first">
              Hours
            </th>
          </tr>
          <tr className="sums">
            <th scope="row">{shows === "hours" ? "Hours" : "Quantity"}</th>
            {work.map((w, i) => {
              const figure = shows === "hours" ? w.hours : w.quantity;
              return (
                <td key={w.id} className={w.section === work[i - 1]?.section ? "sum" : "sum first"}>
                  {figure && <Figure figure={figure} label={`${w.section}: ${w.name}`} />}
                </td>
              );
            })}
            <td className="sum first">
              <Figure figure={job.tally.worked} label="Labour hours of the work" />
            </td>
          </tr>
        </thead>
        <tbody>
          {places.map((place, p) => (
            <Fragment key={place.id}>
              {place.group && place.group !== places[p - 1]?.group && (
                <tr className="group">
                  <th colSpan={work.length + 2} scope="rowgroup">
                    {place.group}
                  </th>
                </tr>
              )}
              <tr>
                <th scope="row">
                  <button
                    className="headbutton"
                    title={`Select all work in ${place.name}`}
                    onClick={() => onRange({ fromItem: 0, toItem: last.item, fromPlace: p, toPlace: p })}
                  >
                    {place.name}
                    {place.count > 1 && ` ×${place.count}`}
                  </button>
                </th>
                {work.map((w, i) => (
                  <GridCell
                    key={w.id}
                    work={w}
                    place={place}
                    at={`${i},${p}`}
                    cell={cells.get(cellKey(w.id, place.id))}
                    shows={shows}
                    selected={holds(range, i, p)}
                    current={at.item === i && at.place === p}
                    first={w.section !== work[i - 1]?.section}
                    onDown={(extend) => {
                      dragging.current = true;
                      move(i, p, extend);
                    }}
                    onOver={() => dragging.current && move(i, p, true)}
                  />
                ))}
                <td className="sum first">
                  {place.hours && <Figure figure={place.hours} label={`Hours, ${place.name}`} />}
                </td>
              </tr>
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function run(work: readonly Work[], from: number): number {
  let to = from;
  while (work[to + 1]?.section === work[from]!.section) to++;
  return to - from + 1;
}

interface CellProps {
  work: Work;
  place: Place;
  cell: Cell | undefined;
  shows: "hours" | "quantity";
  selected: boolean;
  current: boolean;
  first: boolean;
  at: string;
  onDown: (extend: boolean) => void;
  onOver: () => void;
}

function GridCell({ work, place, cell, shows, selected, current, first, at, onDown, onOver }: CellProps) {
  const state = cell?.state ?? "none";
  const figure = cell ? (shows === "hours" ? cell.hours : cell.quantity) : "";
  const words =
    state === "included"
      ? `${figure} ${shows === "hours" ? "h" : cell!.unit}, included`
      : state === "excluded"
        ? "excluded"
        : "none here";
  return (
    <td
      role="gridcell"
      data-at={at}
      tabIndex={current ? 0 : -1}
      aria-selected={selected}
      aria-label={`${work.section}: ${work.name}, ${place.name}: ${words}${cell?.note ? `, ${cell.note}` : ""}`}
      title={cell?.note || undefined}
      className={first ? "first" : undefined}
      onPointerDown={(e) => {
        if (e.button === 0) onDown(e.shiftKey);
      }}
      onPointerEnter={onOver}
    >
      <i className={`cell ${state}`}>
        {state === "included" ? figure : state === "excluded" ? "out" : "·"}
        {cell?.note && <sup aria-hidden="true">✎</sup>}
      </i>
    </td>
  );
}
