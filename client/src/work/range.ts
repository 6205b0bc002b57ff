import type { Cell } from "../api/client";
import type { Layout } from "./layout";

export interface CellAt {
  work: string;
  place: string;
}

/** A selected rectangle of the grid: it was begun at one cell and reaches to the other. */
export interface Range {
  from: CellAt;
  to: CellAt;
}

/** The rectangle by position among the places and work that are shown. */
export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** The cell it reaches to. */
  column: number;
  row: number;
}

/** Where a range lies now; what is not shown any more counts as the first. */
export function boxOf(range: Range | null, layout: Layout): Box {
  const column = (at: CellAt | undefined) =>
    Math.max(
      0,
      layout.work.findIndex((w) => w.id === at?.work),
    );
  const row = (at: CellAt | undefined) =>
    Math.max(
      0,
      layout.places.findIndex((p) => p.id === at?.place),
    );
  const [c, r] = [column(range?.to), row(range?.to)];
  const [c0, r0] = [column(range?.from), row(range?.from)];
  return {
    left: Math.min(c, c0),
    right: Math.max(c, c0),
    top: Math.min(r, r0),
    bottom: Math.max(r, r0),
    column: c,
    row: r,
  };
}

/** Ids of the work and the places of a box. */
export const idsIn = (box: Box, layout: Layout) => ({
  work: layout.work.slice(box.left, box.right + 1).map((w) => w.id),
  places: layout.places.slice(box.top, box.bottom + 1).map((p) => p.id),
});

const letters = { included: "i", excluded: "x", alternate: "a" };

/** How a block of cells is seen, a letter each, as the server checks it. */
export function seen(work: readonly string[], places: readonly string[], cells: ReadonlyMap<string, Cell>): string {
  let letter = "";
  for (const p of places)
    for (const w of work) {
      const cell = cells.get(`${w}/${p}`);
      letter += cell ? letters[cell.state] : ".";
    }
  return letter;
}

/** A table from the clipboard: rows by line, columns by tab, quotes around what has either in it. */
export function tableFrom(text: string): string[][] {
  const rows: string[][] = [[]];
  const cells = /("(?:[^"]|"")*"|[^\t\n]*)(\t|\n|$)/g;
  const clean = text.replaceAll("\r\n", "\n").replaceAll("\r", "\n").replace(/\n$/, "");
  for (let match = cells.exec(clean); match; match = cells.exec(clean)) {
    const cell = match[1]!;
    rows.at(-1)!.push(cell.startsWith('"') ? cell.slice(1, -1).replaceAll('""', '"') : cell);
    if (match[2] === "\n") rows.push([]);
    if (match[2] === "") break;
  }
  return rows;
}
