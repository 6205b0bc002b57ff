import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";

/** Sets a term of the round; rejects with what is wrong with it. */
export function useRound() {
  const [open, { job }] = useJob();
  return (field: keyof Schemas["RoundTerms"], now: unknown) =>
    open.send({ type: "setRound", field, was: job.round[field] ?? null, now } as never);
}
