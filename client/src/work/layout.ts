import type { Cell, Job, Place, Work } from "../api/client";

/** What is shown of the grid: words that places and work must have, and which cells count. */
export interface Filter {
  places: string;
  work: string;
  only: "all" | "differs" | "excluded" | "alternate" | "noted" | "nothing" | "empty";
}

export const noFilter: Filter = { places: "", work: "", only: "all" };

export type Row = { kind: "group"; group: string; places: Place[]; folded: boolean } | { kind: "place"; place: Place };

export type Column =
  { kind: "work"; work: Work; first: boolean } | { kind: "folded"; section: string; work: Work[]; first: boolean };

/** Rows and columns of the grid as they stand on screen, and the places and work that can be selected in it. */
export interface Layout {
  rows: Row[];
  columns: Column[];
  places: Place[];
  work: Work[];
  rowOf: ReadonlyMap<string, number>;
  columnOf: ReadonlyMap<string, number>;
  /** Position of each work item among those that can be selected. */
  workAt: ReadonlyMap<string, number>;
  /** Runs of columns under one section, for the head. */
  sections: { section: string; from: number; to: number; folded: boolean }[];
}

/** Whether all the words stand in a text. */
export const has = (text: string, words: string) =>
  words
    .toLowerCase()
    .split(/\s+/)
    .every((w) => text.toLowerCase().includes(w));

/** What a place, and work, is found by. */
export const placeWords = (p: Place) => `${p.name} ${p.group} ${p.finish}`;
export const workWords = (w: Work) => `${w.section} ${w.name} ${w.wording}`;

const counts: Record<Filter["only"], (cell: Cell | undefined) => boolean> = {
  all: () => true,
  differs: (cell) => cell?.differs === true,
  excluded: (cell) => cell?.state === "excluded",
  alternate: (cell) => cell?.state === "alternate",
  noted: (cell) => Boolean(cell?.note),
  nothing: (cell) => Boolean(cell?.nothing),
  empty: (cell) => cell === undefined,
};

/** Changes only when a layout would: not when a figure moves. */
export const layoutKey = (job: Job) =>
  [
    ...job.work.map((w) => `${w.id}|${w.section}|${w.name}|${w.unit}|${w.wording}`),
    ...job.places.map((p) => `${p.id}|${p.name}|${p.group}|${p.count}|${p.finish}`),
  ].join("\n");

/** Lays the job out for the grid. */
export function layoutOf(
  job: Job,
  cells: ReadonlyMap<string, Cell>,
  filter: Filter,
  foldedGroups: ReadonlySet<string>,
  foldedSections: ReadonlySet<string>,
): Layout {
  const work = job.work.filter((w) => has(workWords(w), filter.work));
  let places = job.places.filter((p) => has(placeWords(p), filter.places));
  if (filter.only === "empty") places = places.filter((p) => !work.some((w) => cells.has(`${w.id}/${p.id}`)));
  else if (filter.only !== "all")
    places = places.filter((p) => work.some((w) => counts[filter.only](cells.get(`${w.id}/${p.id}`))));

  const rows: Row[] = [];
  const shownPlaces: Place[] = [];
  const rowOf = new Map<string, number>();
  for (const [i, place] of places.entries()) {
    if (place.group && place.group !== places[i - 1]?.group) {
      const of: Place[] = [];
      for (let j = i; places[j]?.group === place.group; j++) of.push(places[j]!);
      rows.push({ kind: "group", group: place.group, places: of, folded: foldedGroups.has(place.group) });
    }
    if (place.group && foldedGroups.has(place.group)) continue;
    rowOf.set(place.id, rows.length);
    rows.push({ kind: "place", place });
    shownPlaces.push(place);
  }

  const columns: Column[] = [];
  const shownWork: Work[] = [];
  const columnOf = new Map<string, number>();
  const sections: Layout["sections"] = [];
  for (const [i, w] of work.entries()) {
    const first = w.section !== work[i - 1]?.section;
    const folded = foldedSections.has(w.section);
    if (first) sections.push({ section: w.section, from: columns.length, to: columns.length, folded });
    const run = sections.at(-1)!;
    if (folded) {
      const last = columns.at(-1);
      if (!first && last?.kind === "folded") last.work.push(w);
      else columns.push({ kind: "folded", section: w.section, work: [w], first: true });
      run.to = columns.length;
      continue;
    }
    columnOf.set(w.id, columns.length);
    columns.push({ kind: "work", work: w, first });
    shownWork.push(w);
    run.to = columns.length;
  }
  const workAt = new Map(shownWork.map((w, i) => [w.id, i] as const));
  return { rows, columns, places: shownPlaces, work: shownWork, rowOf, columnOf, workAt, sections };
}
