import type { Job } from "../api/client";

/** A selected rectangle of the grid, by position: it was begun at one corner and reaches to the other. */
export interface Range {
  fromItem: number;
  fromPlace: number;
  toItem: number;
  toPlace: number;
}

export interface CellAt {
  work: string;
  place: string;
}

export const startAt = (item: number): Range => ({ fromItem: item, toItem: item, fromPlace: 0, toPlace: 0 });

const between = (a: number, b: number, x: number) => Math.min(a, b) <= x && x <= Math.max(a, b);

export const holds = (range: Range, item: number, place: number) =>
  between(range.fromItem, range.toItem, item) && between(range.fromPlace, range.toPlace, place);

/** The cells of a range, item by item. */
export function cellsIn(range: Range, job: Job): CellAt[] {
  return job.work.flatMap((work, item) =>
    job.places.flatMap((place, at) => (holds(range, item, at) ? [{ work: work.id, place: place.id }] : [])),
  );
}
