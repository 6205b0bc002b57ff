import { useState } from "react";

/** What was begun in the Book and is not kept yet, by where it was typed: it outlives the form it stands in. */
const drafts = new Map<string, unknown>();

/** How many are kept; the oldest goes first. */
const most = 500;

/** Something typed that is not kept yet: what it is, how it changes, and how it is dropped once it is kept or given up. */
export function useDraft<T>(key: string, start: T): [value: T, draft: (value: T) => void, drop: () => void] {
  const [, redraw] = useState(0);
  return [
    drafts.has(key) ? (drafts.get(key) as T) : start,
    (value) => {
      keepDraft(key, value);
      redraw((n) => n + 1);
    },
    () => {
      drafts.delete(key);
      redraw((n) => n + 1);
    },
  ];
}

/** The ends of the keys that begin so, of what is not kept yet. */
export const drafted = (start: string): string[] =>
  [...drafts.keys()].filter((key) => key.startsWith(start)).map((key) => key.slice(start.length));

/** What was left of a key. */
export const leftDraft = (key: string): unknown => drafts.get(key);

/** Leaves something; nothing forgets it. */
export function keepDraft(key: string, value: unknown) {
  drafts.delete(key);
  if (value === null) return;
  drafts.set(key, value);
  if (drafts.size > most) drafts.delete(drafts.keys().next().value!);
}
