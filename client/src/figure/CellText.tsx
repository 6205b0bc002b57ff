import type { Cell, Schemas } from "../api/client";
import type { Shows } from "./GridCell";

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
  const inMoney = shows === "cost" || shows === "price";
  const text = inMoney ? props.money?.[shows] : cell.shown?.[shows];
  if (!text) return null;
  if (cell.allowed && shows === "hours") return <span>a sum allowed</span>;
  return (
    <span data-of={`${inMoney ? "lines" : "cells"}/${work}/${place}/${shows}`}>
      {text} <i>{shows === "hours" ? "h" : shows === "quantity" ? props.unit : ""}</i>
    </span>
  );
}
