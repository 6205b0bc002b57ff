import { useMemo } from "react";
import { useSearchParams } from "react-router";
import { useJob } from "../job/JobContext";
import type { TermsHeld } from "./TermFields";

/** The terms of the job as they are shown and set; what is drawn by them is drawn when they change, and not when the price comes that they lead to. */
export function useTermsHeld(): TermsHeld {
  const [open, { job }] = useJob();
  const [search] = useSearchParams();
  const { pricing: terms, policy } = job;
  const focus = search.get("field");
  return useMemo(
    () => ({
      terms,
      set: (field, now) => open.send({ type: "setPricing", field, was: terms[field] ?? null, now } as never),
      bent: new Map(policy?.bent.map((b) => [b.field, b.policy])),
      fall: (field) => void open.tell({ type: "fallToPolicy", field }),
      focus,
    }),
    [open, terms, policy, focus],
  );
}
