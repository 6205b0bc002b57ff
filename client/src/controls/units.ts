import type { Option } from "./Choice";

export type UnitKind = "area" | "length" | "volume" | "mass" | "time" | "count";

/** Units of each kind, the ones that are meant most often first. */
const units: Record<UnitKind, readonly string[]> = {
  area: ["ft²", "m²", "yd²", "square", "acre", "ha"],
  length: ["ft", "m", "yd", "in", "mm"],
  volume: ["gal", "L", "qt", "floz", "mL", "ft³", "yd³", "m³"],
  mass: ["lb", "kg", "ton", "t", "oz"],
  time: ["h"],
  count: [
    "each", "bag", "kit", "roll", "sheet", "tube", "length", "panel", "tile", "brick", "paver", "door", "window", "pane", "room", "place",
    "step", "corner", "fixture", "sign", "letter", "plant", "tree", "post", "visit",
  ],
}; // prettier-ignore

const headings: Record<UnitKind, string> = {
  area: "Area",
  length: "Length",
  volume: "Volume",
  mass: "Weight",
  time: "Time",
  count: "Counted",
};

const words: Record<string, string> = { square: "square (100 ft²)", floz: "fl oz" };

/** Units of one kind. */
export const unitsOf = (kind: UnitKind): readonly Option[] => units[kind].map((u) => [u, words[u] ?? u]);

/** Units in which work of a kind may be counted: those that can be typed as a quantity. */
export const countedUnits = (kind: UnitKind): readonly Option[] =>
  unitsOf(kind).filter(([unit]) => kind !== "volume" || unit.endsWith("³"));

/** All units by kind, the likely kinds first. */
export const unitOptions = (...likely: UnitKind[]): readonly Option[] =>
  [...likely, ...(Object.keys(units) as UnitKind[]).filter((kind) => !likely.includes(kind))].flatMap((kind) =>
    unitsOf(kind).map(([unit, said]) => [unit, said, headings[kind]] as const),
  );
