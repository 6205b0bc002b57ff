import { memo } from "react";
import type { Cell, Schemas } from "../api/client";
import { type Shows, cellPath, cellText, cellUnit } from "./cellFigure";

interface Props {
  /** What it is of: work item and place, for its name. */
  name: string;
  work: string;
  place: string;
  unit: string;
  cell: Cell | undefined;
  money: Schemas["CellMoney"] | undefined;
  shows: Shows;
  selected: boolean;
  current: boolean;
  column: number;
  left: number;
  width: number;
  frozen: boolean;
  /** How it stands in its row. */
  className: string | undefined;
}

const words = { included: "included", excluded: "excluded", alternate: "an alternate, not in the price" };

/** A cell of the scope grid: what is done there in a glyph and words, and its figure. */
export const GridCell = memo(function GridCell(props: Props) {
  const { cell, shows, unit } = props;
  const state = cell?.state ?? "none";
  // What a sum is allowed for has no hours of its own.
  const allowed = cell?.allowed === true && shows === "hours";
  const nothing = cell?.nothing;
  const text = allowed || nothing ? "" : cellText(cell, props.money, shows);
  const said = !cell
    ? "none here"
    : `${text ? `${text} ${cellUnit(shows, unit)}`.trim() + ", " : ""}${words[cell.state]}${allowed ? ", an allowance" : ""}${nothing ? `, but of nothing: ${nothing.why}` : ""}`;
  return (
    <div
      role="gridcell"
      data-cell={`${props.work}/${props.place}`}
      data-figure={text ? cellPath(props.work, props.place, shows) : undefined}
      tabIndex={props.current ? 0 : -1}
      aria-colindex={props.column}
      aria-selected={props.selected}
      aria-label={`${props.name}: ${said}${cell?.differs ? ", differs from its item" : ""}${cell?.note ? `, ${cell.note}` : ""}`}
      title={[nothing?.why, cell?.note].filter(Boolean).join(" ") || undefined}
      className={props.className}
      style={
        props.frozen
          ? { position: "sticky", left: props.left, width: props.width }
          : { left: props.left, width: props.width }
      }
    >
      <i className={`cell ${nothing ? "nothing" : state}`}>
        {nothing
          ? "0 ?"
          : state === "none"
            ? "·"
            : state === "excluded"
              ? "excluded"
              : state === "alternate"
                ? `alt ${text ?? ""}`
                : allowed
                  ? "sum"
                  : (text ?? "…")}
        {cell?.differs && <b className="differs" aria-hidden="true" />}
        {cell?.note && <sup aria-hidden="true">✎</sup>}
      </i>
    </div>
  );
});
