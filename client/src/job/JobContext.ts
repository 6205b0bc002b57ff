import { createContext, useContext, useSyncExternalStore } from "react";
import type { JobState, OpenJob } from "./openJob";

export const JobContext = createContext<OpenJob | null>(null);

/** The open job and its state. */
export function useJob(): [OpenJob, JobState] {
  const open = useContext(JobContext)!;
  return [open, useSyncExternalStore(open.subscribe, open.get)];
}

/** Opens the workings of a figure. */
export const WhyContext = createContext<(path: string) => void>(() => undefined);
