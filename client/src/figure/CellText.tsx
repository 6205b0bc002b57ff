import type { Cell, Schemas } from "../api/client";
import { type Shows, cellPath, cellText, cellUnit } from "./cellFigure";

/** A figure of a cell in a list; the row around it answers `E`. */
export function CellText(props: {
  work: string;
  place: string;
  cell: Cell;
  unit: string;
  shows: Shows;
  money: Schemas["CellMoney"] | undefined;
}) {
  const { work, place, cell, shows } = props;
  if (cell.nothing) return <span title={cell.nothing.why}>nothing there</span>;
  const text = cellText(cell, props.money, shows);
  if (!text) return null;
  if (cell.allowed && shows === "hours") return <span>a sum allowed</span>;
  return (
    <span data-of={cellPath(work, place, shows)}>
      {text} <i>{cellUnit(shows, props.unit)}</i>
    </span>
  );
}
