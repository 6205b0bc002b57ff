import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import { useJob } from "../job/JobContext";
import { askJob } from "../api/jobQueries";

/** Entries of the Book of some kind, by name. */
export function useChoices(kind: string): readonly Schemas["NamedEntry"][] {
  const { data } = useQuery(ask.bookChoices);
  return data?.filter((c) => c.kind === kind) ?? [];
}

/** The entries that the job has, beside the Book's. */
export function usePinned(): readonly Schemas["PinnedView"][] | undefined {
  const [, { job }] = useJob();
  return useQuery(askJob.pinned(job)).data;
}

export const supplies: readonly (readonly [Schemas["Supply"], string])[] = [
  ["we", "we do"],
  ["customerMaterial", "customer supplies the material"],
  ["customer", "customer does it"],
];
