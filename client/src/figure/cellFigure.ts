import type { Cell, Schemas } from "../api/client";

/** What the cells of the scope grid show. */
export type Shows = "hours" | "quantity" | "cost" | "price";

export const inMoney = (shows: Shows): shows is "cost" | "price" => shows === "cost" || shows === "price";

/** Where the workings of a cell's figure are. */
export const cellPath = (work: string, place: string, shows: Shows) =>
  `${inMoney(shows) ? "lines" : "cells"}/${work}/${place}/${shows}`;

/** A cell's figure, ready to be shown; nothing where it has none. */
export const cellText = (cell: Cell | undefined, money: Schemas["CellMoney"] | undefined, shows: Shows) =>
  inMoney(shows) ? money?.[shows] : cell?.shown?.[shows];

/** The unit that stands with it. */
export const cellUnit = (shows: Shows, unit: string) => (shows === "hours" ? "h" : shows === "quantity" ? unit : "");

/** Cost and price by cell, ready to be shown. */
export const moneyByCell = (money: Schemas["MoneyView"] | undefined): ReadonlyMap<string, Schemas["CellMoney"]> =>
  new Map((money?.work ?? []).flatMap((w) => w.cells.map((c) => [`${w.work}/${c.place}`, c.shown] as const)));

/** What is shown of a block, as a spreadsheet takes it: rows by line, columns by tab. */
export function asTable(
  work: readonly string[],
  places: readonly string[],
  shows: Shows,
  cells: ReadonlyMap<string, Cell>,
  money: ReadonlyMap<string, Schemas["CellMoney"]>,
): string {
  const text = (key: string) => {
    const cell = cells.get(key);
    if (!cell) return "";
    if (cell.state === "excluded") return cell.note ? `excluded: ${cell.note}` : "excluded";
    if (cell.state === "alternate") return "alt";
    // Of nothing, and included all the same: a 0 would take it out.
    if (cell.nothing) return "x";
    return cellText(cell, money.get(key), shows) ?? "x";
  };
  const quoted = (t: string) => (/["\t\n]/.test(t) ? `"${t.replaceAll('"', '""')}"` : t);
  return places.map((p) => work.map((w) => quoted(text(`${w}/${p}`))).join("\t")).join("\n");
}
