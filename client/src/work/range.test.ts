import { expect, test } from "vitest";
import type { Cell } from "../api/client";
import { asTable } from "../figure/cellFigure";
import type { Layout } from "./layout";
import { boxOf, idsIn, seen, tableFrom } from "./range";

const layout = {
  work: ["a", "b", "c"].map((id) => ({ id })),
  places: ["1", "2", "3", "4"].map((id) => ({ id })),
} as Layout;
const at = (work: string, place: string) => ({ work, place });

test("a range is a box whichever way it was drawn, and knows the cell it reaches to", () => {
  const box = boxOf({ from: at("c", "4"), to: at("b", "2") }, layout);
  expect(box).toEqual({ left: 1, right: 2, top: 1, bottom: 3, column: 1, row: 1 });
  expect(idsIn(box, layout)).toEqual({ work: ["b", "c"], places: ["2", "3", "4"] });
});

test("what is not shown any more counts as the first", () => {
  expect(boxOf({ from: at("z", "9"), to: at("b", "9") }, layout)).toMatchObject({
    left: 0,
    right: 1,
    top: 0,
    bottom: 0,
  });
  expect(boxOf(null, layout)).toMatchObject({ column: 0, row: 0 });
});

test("a block is seen row by row, a letter a cell", () => {
  const cells = new Map([
    ["a/1", { state: "included" }],
    ["b/1", { state: "excluded" }],
    ["b/2", { state: "alternate" }],
  ]) as unknown as ReadonlyMap<string, Cell>;
  expect(seen(["a", "b"], ["1", "2"], cells)).toBe("ix.a");
});

test("a table comes as spreadsheets and text give it", () => {
  expect(tableFrom("x\t12\r\n\texcluded: keep\r\n")).toEqual([
    ["x", "12"],
    ["", "excluded: keep"],
  ]);
  expect(tableFrom("1\r2")).toEqual([["1"], ["2"]]);
  expect(tableFrom('"two\nlines"\t"a ""word"""')).toEqual([["two\nlines", 'a "word"']]);
  expect(tableFrom("")).toEqual([[""]]);
  // A quote inside a word is a quote; inches are typed so.
  expect(tableFrom("12'6\"\tx")).toEqual([["12'6\"", "x"]]);
});

test("what is copied out comes back as it was", () => {
  const note = 'leave it\tand\n"this" too';
  const cells = new Map([
    ["a/1", { state: "included", shown: { hours: "1,204.5", quantity: "9.0" } }],
    ["b/1", { state: "excluded", note }],
    ["b/2", { state: "alternate", shown: null }],
    ["a/2", { state: "included", shown: null }],
  ]) as unknown as ReadonlyMap<string, Cell>;
  const table = tableFrom(asTable(["a", "b", "c"], ["1", "2"], "hours", cells, new Map()));
  expect(table).toEqual([
    ["1,204.5", `excluded: ${note}`, ""],
    ["x", "alt", ""],
  ]);
  const money = new Map([["a/1", { cost: "10.00", price: "15.50" }]]);
  expect(asTable(["a"], ["1"], "price", cells, money)).toBe("15.50");
});
