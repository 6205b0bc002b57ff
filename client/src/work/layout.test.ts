import { expect, test } from "vitest";
import type { Cell, Job, Place, Work } from "../api/client";
import { has, layoutKey, layoutOf, noFilter } from "./layout";

const place = (id: string, group: string, finish = "") =>
  ({ id, name: `Room ${id}`, group, finish, count: 1 }) as Place;
const work = (id: string, section: string, name: string) =>
  ({ id, section, name, wording: "", unit: "ft²", hours: null }) as unknown as Work;

const job = {
  places: [place("1", "Ground"), place("2", "Ground", "plaster"), place("3", "First"), place("4", "")],
  work: [work("a", "Walls", "Paint"), work("b", "Walls", "Skim"), work("c", "Ceilings", "Paint")],
} as Job;

const cells = new Map([
  ["a/1", { place: "1", state: "included", shown: null }],
  ["a/2", { place: "2", state: "excluded", note: "the tenant paints", shown: null }],
  ["c/3", { place: "3", state: "alternate", differs: true, shown: null }],
]) as unknown as ReadonlyMap<string, Cell>;
const none: ReadonlySet<string> = new Set();
const of = (part: object, groups = none, sections = none) =>
  layoutOf(job, cells, { ...noFilter, ...part }, groups, sections);
const placesOf = (part: object) => of(part).places.map((p) => p.id);

test("places stand under their headings, work under its sections", () => {
  const all = of({});
  expect(all.rows.map((r) => (r.kind === "group" ? r.group : r.place.id))).toEqual([
    "Ground",
    "1",
    "2",
    "First",
    "3",
    "4",
  ]);
  expect(all.sections).toEqual([
    { section: "Walls", from: 0, to: 2, folded: false },
    { section: "Ceilings", from: 2, to: 3, folded: false },
  ]);
  expect(all.columns.map((c) => c.first)).toEqual([true, false, true]);
  expect([all.rowOf.get("3"), all.columnOf.get("c"), all.workAt.get("c")]).toEqual([4, 2, 2]);
});

test("what is folded cannot be selected, and its heading says how much it holds", () => {
  const folded = of({}, new Set(["Ground"]), new Set(["Walls"]));
  expect(folded.rows[0]).toMatchObject({ kind: "group", folded: true, places: [{ id: "1" }, { id: "2" }] });
  expect(folded.places.map((p) => p.id)).toEqual(["3", "4"]);
  expect(folded.columns).toMatchObject([
    { kind: "folded", section: "Walls", work: [{ id: "a" }, { id: "b" }] },
    { kind: "work" },
  ]);
  expect(folded.work.map((w) => w.id)).toEqual(["c"]);
  expect(folded.columnOf.get("c")).toBe(1);
});

test("places are filtered by words in name, heading or finish, and by what stands in their cells", () => {
  expect(placesOf({ places: "ground" })).toEqual(["1", "2"]);
  expect(placesOf({ places: "PLAS room" })).toEqual(["2"]);
  expect(placesOf({ only: "excluded" })).toEqual(["2"]);
  expect(placesOf({ only: "alternate" })).toEqual(["3"]);
  expect(placesOf({ only: "differs" })).toEqual(["3"]);
  expect(placesOf({ only: "noted" })).toEqual(["2"]);
  expect(placesOf({ only: "empty" })).toEqual(["4"]);
});

test("a filter of work counts only the work it leaves", () => {
  expect(of({ work: "ceil" }).work.map((w) => w.id)).toEqual(["c"]);
  expect(placesOf({ work: "ceil", only: "empty" })).toEqual(["1", "2", "4"]);
});

test("the key of a layout moves with names and headings and not with figures", () => {
  const moved = {
    ...job,
    work: [{ ...job.work[0]!, hours: { path: "", shown: "9", unit: "h", value: "9" } }, ...job.work.slice(1)],
  };
  expect(layoutKey(moved as Job)).toBe(layoutKey(job));
  const renamed = { ...job, places: [{ ...job.places[0]!, group: "Cellar" }, ...job.places.slice(1)] };
  expect(layoutKey(renamed)).not.toBe(layoutKey(job));
});

test("words are found in any order and case; no words are in everything", () => {
  expect([has("Reading room", "ROOM read"), has("Reading room", "room 2"), has("", "")]).toEqual([true, false, true]);
});
