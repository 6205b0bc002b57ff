import { createContext, useContext, useSyncExternalStore } from "react";
import type { JobState, OpenJob, Way } from "./openJob";

export const JobContext = createContext<OpenJob | null>(null);

/** A state that what is inside may show a little later than the rest, so that what was typed is painted first. */
export const LaterContext = createContext<JobState | null>(null);

const never = () => () => undefined;

/** The open job and its state. */
export function useJob(): [OpenJob, JobState] {
  const open = useContext(JobContext)!;
  const later = useContext(LaterContext);
  return [open, useSyncExternalStore(later ? never : open.subscribe, later ? () => later : open.get)];
}

/** How it stands with the edits made here. */
export function useWay(): Way {
  const open = useContext(JobContext)!;
  return useSyncExternalStore(open.subscribe, open.way);
}

/** Opens the workings of a figure. */
export const WhyContext = createContext<(path: string) => void>(() => undefined);
