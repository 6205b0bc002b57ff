import { expect, test } from "vitest";
import type { Place } from "../api/client";
import { isUnder, rowKey, rowsOf } from "./placeRows";

const place = (name: string, group: string, finish = "") => ({ id: name, name, group, size: "", finish }) as Place;
const places = [
  place("Yard", ""),
  place("Hall", "House / Ground"),
  place("Kitchen", "House / Ground", "Thirsty plaster"),
  place("Loft", "House / First"),
  place("Shed", "Garden"),
];
const shown = (folded: string[] = [], find = "") =>
  rowsOf(places, new Set(folded), find).map((r) =>
    r.kind === "heading" ? `${r.level}:${r.name}(${r.places})` : `${r.level}:${r.place.name}`,
  );

test("headings nest, each once, with what stands under them", () => {
  expect(shown()).toEqual([
    "1:Yard",
    "1:House(3)",
    "2:Ground(2)",
    "3:Hall",
    "3:Kitchen",
    "2:First(1)",
    "3:Loft",
    "1:Garden(1)",
    "2:Shed",
  ]);
});

test("a folded heading hides what is nested in it, and nothing else", () => {
  expect(shown(["House"])).toEqual(["1:Yard", "1:House(3)", "1:Garden(1)", "2:Shed"]);
  expect(shown(["House / Ground"])).toEqual([
    "1:Yard",
    "1:House(3)",
    "2:Ground(2)",
    "2:First(1)",
    "3:Loft",
    "1:Garden(1)",
    "2:Shed",
  ]);
});

test("finding looks in names, headings and finishes, through what is folded", () => {
  expect(shown(["House"], " kitch ")).toEqual(["1:House(1)", "2:Ground(1)", "3:Kitchen"]);
  expect(shown([], "thirsty")).toEqual(["1:House(1)", "2:Ground(1)", "3:Kitchen"]);
  expect(shown([], "zebra")).toEqual([]);
});

test("a heading is not under another that only begins like it", () => {
  expect([isUnder("House / Ground", "House"), isUnder("Houseboat", "House"), isUnder("House", "House")]).toEqual([
    true,
    false,
    true,
  ]);
});

test("two headings of the same name are two rows", () => {
  const twice = rowsOf([place("A", "East / Ground"), place("B", "West / Ground")], new Set(), "");
  expect(new Set(twice.map(rowKey)).size).toBe(twice.length);
});
