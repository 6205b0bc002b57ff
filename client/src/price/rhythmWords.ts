import type { Schemas } from "../api/client";

type Rhythm = Schemas["Rhythm"];

/** When a rhythm is done: the id of the one whose place it takes, on a visit of its own, or while the crew is there. */
export const visitOf = (rhythm: Pick<Rhythm, "instead" | "ownVisit">) =>
  rhythm.instead ?? (rhythm.ownVisit ? "own" : "along");

/** The same as a command carries it. */
export const withVisit = (rhythm: Pick<Rhythm, "ownVisit">, to: string) => ({
  instead: to === "own" || to === "along" ? null : to,
  ownVisit: to === "own" || (to !== "along" && rhythm.ownVisit),
});

/** When a rhythm can be done. The job's usual one has its visit. */
export const visits = (rhythm: Pick<Rhythm, "id">, all: readonly Rhythm[], usual: boolean) =>
  [
    ["own", "on a visit of its own"],
    ...(usual ? [] : ([["along", "while the crew is there"]] as const)),
    ...all.filter((r) => r.id !== rhythm.id && r.kind !== "event").map((r) => [r.id, `instead of ${r.name}`] as const),
  ] as const;
