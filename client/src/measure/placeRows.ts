import type { Place } from "../api/client";

/** Stands between a heading and one nested in it. */
export const nested = " / ";

export interface HeadingRow {
  kind: "heading";
  /** The whole path: two headings may have the same name. */
  path: string;
  name: string;
  level: number;
  folded: boolean;
  places: number;
}

export interface PlaceRow {
  kind: "place";
  place: Place;
  level: number;
}

export type Row = HeadingRow | PlaceRow;

export const rowKey = (row: Row) => (row.kind === "heading" ? `h:${row.path}` : row.place.id);

/** The places under their headings, as the list shows them: what is folded or does not match is left out. */
export function rowsOf(places: readonly Place[], folded: ReadonlySet<string>, find: string): Row[] {
  const rows: Row[] = [];
  const needle = find.trim().toLowerCase();
  const shown = needle
    ? places.filter((p) => `${p.name} ${p.group} ${p.size} ${p.finish}`.toLowerCase().includes(needle))
    : places;
  let before: string[] = [];
  for (const place of shown) {
    const path = place.group ? place.group.split(nested) : [];
    let same = 0;
    while (same < path.length && same < before.length && path[same] === before[same]) same++;
    for (let i = same; i < path.length; i++) {
      const whole = path.slice(0, i + 1).join(nested);
      if (i > 0 && !needle && isFolded(whole.slice(0, whole.lastIndexOf(nested)), folded)) continue;
      rows.push({
        kind: "heading",
        path: whole,
        name: path[i]!,
        level: i + 1,
        folded: folded.has(whole) && !needle,
        places: shown.filter((p) => isUnder(p.group, whole)).length,
      });
    }
    before = path;
    if (!needle && isFolded(place.group, folded)) continue;
    rows.push({ kind: "place", place, level: path.length + 1 });
  }
  return rows;
}

/** Whether a heading is another or stands in it. */
export function isUnder(group: string, heading: string): boolean {
  return group === heading || group.startsWith(heading + nested);
}

function isFolded(group: string, folded: ReadonlySet<string>): boolean {
  for (const heading of folded) if (isUnder(group, heading)) return true;
  return false;
}
