import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { useJob } from "../job/JobContext";

/** What the cells of a work item have instead of it, where they have anything. */
export function useOwnCells(work: string): ReadonlyMap<string, Schemas["Cell"]> | undefined {
  const [, { job }] = useJob();
  const { data } = useQuery({
    ...askJob.own(job, work),
    placeholderData: (kept, query) => (query?.queryKey[2] === work ? kept : undefined),
  });
  return useMemo(() => data && new Map(data.map((c) => [c.place, c.own] as const)), [data]);
}
