import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext } from "react";
import type { Schemas } from "../api/client";
import { change as save } from "../api/changes";
import { ask } from "../api/queries";
import { useInTurn } from "../api/useInTurn";

export type Entry = Schemas["BookEntry"];
export type EntryView = Schemas["EntryView"];
export type Assembly = Schemas["BookEntryAssembly"];
export type Component = Schemas["Component"];

/** An entry that is being looked at, and how a part of it is set. */
export interface Editing {
  view: EntryView;
  /** Sets what stands at a path like `packs[0].price`; rejects with what the server says of it. */
  set: (path: string, value: unknown) => Promise<void>;
  /** Changes several things in one save. */
  change: (how: (entry: Entry) => Entry) => Promise<void>;
}

export const EditingContext = createContext<Editing | null>(null);

export function useEditing(): Editing {
  return useContext(EditingContext)!;
}

/** One entry of the Book. Edits go to the server one after another, each made from what the one before left. */
export function useEntry(id: string): { editing: Editing | null; error: Error | null } {
  const queries = useQueryClient();
  const { data: view, error } = useQuery(ask.entry(id));
  const inTurn = useInTurn();

  const change = useCallback(
    (how: (entry: Entry) => Entry) =>
      inTurn(async () => {
        const { entry } = queries.getQueryData<EntryView>(["entry", id])!;
        const view = await save.entry(id, { was: entry.version, entry: how(structuredClone(entry)) });
        queries.setQueryData(["entry", id], view);
        await bookChanged(queries, id);
      }),
    [id, queries, inTurn],
  );
  const set = useCallback(
    (path: string, value: unknown) => change((entry) => (put(entry, path, value), entry)),
    [change],
  );
  return { editing: view ? { view, set, change } : null, error };
}

/** What was shown of the Book is asked for anew, but not the entry that just came with its answer. */
export async function bookChanged(queries: ReturnType<typeof useQueryClient>, but?: string) {
  await queries.invalidateQueries({
    predicate: (q) =>
      ["book", "book-list", "book-texts", "versions", "feed", "catalogue", "entry"].includes(String(q.queryKey[0])) &&
      !(q.queryKey[0] === "entry" && q.queryKey[1] === but),
  });
}

const steps = (path: string) => path.split(/[.[\]]+/).filter(Boolean);

/** What stands at a path. */
export function at(entry: unknown, path: string): unknown {
  return steps(path).reduce<unknown>((thing, step) => (thing as Record<string, unknown> | null)?.[step], entry);
}

/** Puts a value at a path. */
export function put(entry: unknown, path: string, value: unknown) {
  const way = steps(path);
  const last = way.pop()!;
  (way.reduce<unknown>((thing, step) => (thing as Record<string, unknown>)[step], entry) as Record<string, unknown>)[
    last
  ] = value;
}
