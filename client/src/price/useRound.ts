import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";

type Terms = Schemas["RoundTerms"];

/** Sets a term of the round; rejects with what is wrong with it. */
export function useRound(terms: Terms) {
  const [open] = useJob();
  return (field: keyof Terms, now: unknown) =>
    open.send({ type: "setRound", field, was: terms[field] ?? null, now } as never);
}
