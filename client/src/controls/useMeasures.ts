import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import type { UnitKind } from "./units";

type MeasureName = Schemas["MeasureName"];

/** Measures as the firm calls them. */
export function useMeasures() {
  const { data } = useQuery(ask.measures);
  const measures = data ?? [];
  const find = (name: string): MeasureName =>
    measures.find((m) => m.name === name) ?? { name, label: name, kind: "area", unit: "ft²" };
  return {
    /** For choosing. */
    options: measures.map((m) => [m.name, m.label] as const),
    kindOf: (name: string) => find(name).kind as UnitKind,
    unitOf: (name: string) => find(name).unit,
    labelOf: (name: string) => find(name).label,
    /** The others of the same kind, for choosing. */
    like: (name: string) =>
      measures.filter((m) => m.kind === find(name).kind && m.name !== name).map((m) => [m.name, m.label] as const),
  };
}
