import { type IDBPDatabase, openDB } from "idb";
import type { Command } from "../api/client";

/** A command on its way, kept until the server has answered it. */
export interface Waiting {
  /** The command's id, with which it goes however often it is sent. */
  id: string;
  job: string;
  /** The window in which it was made. */
  client: string;
  command: Command;
  /** What the server said of it, where the field it was typed in is gone. */
  refused?: string;
}

/** A command and where it stands in the outbox, by which the order is kept. */
export interface Kept extends Waiting {
  order: number;
}

/**
 * The commands that the server has not answered yet, kept by the browser (IndexedDB), so that nothing that was typed is lost with the page. Where
 * the browser keeps nothing, commands go as they are.
 */
export interface Outbox {
  /** Keeps a command; gives where it stands, null where it could not be kept. */
  put: (waiting: Waiting) => Promise<number | null>;
  /** Forgets a command that was answered. */
  drop: (order: number) => Promise<void>;
  /** Marks a command as refused; it stays until it is dropped. */
  refuse: (order: number, why: string) => Promise<void>;
  /** The commands of a job that this window left, or a window that is closed, in their order. */
  left: (job: string) => Promise<Kept[]>;
  /** The jobs that have commands to send. */
  jobs: () => Promise<string[]>;
}

const store = "commands";

/**
 * The outbox of one window.
 * @param open Ids of the windows that are open, this one with them: what they have made is theirs to send.
 */
export function outbox(client: string, open: () => Promise<ReadonlySet<string>>): Outbox {
  const opening = opened().catch(() => null);

  /** Does something with what is kept; null where the browser does not let it. */
  async function kept<T>(doing: (at: IDBPDatabase) => Promise<T>): Promise<T | null> {
    const at = await opening;
    return at && doing(at).catch(() => null);
  }
  async function ours(): Promise<Kept[]> {
    const all = ((await kept((at) => at.getAll(store))) ?? []) as Kept[];
    if (all.every((one) => one.client === client)) return all;
    const others = await open();
    return all.filter((one) => one.client === client || !others.has(one.client));
  }
  return {
    put: async (waiting) => (await kept((at) => at.add(store, waiting))) as number | null,
    drop: async (order) => void (await kept((at) => at.delete(store, order))),
    refuse: async (order, why) =>
      void (await kept(async (at) => {
        const change = at.transaction(store, "readwrite");
        const one = (await change.store.get(order)) as Kept | undefined;
        if (one) await change.store.put({ ...one, refused: why });
        await change.done;
      })),
    left: async (job) => (await ours()).filter((one) => one.job === job),
    jobs: async () => [...new Set((await ours()).filter((one) => !one.refused).map((one) => one.job))],
  };
}

async function opened(): Promise<IDBPDatabase> {
  return await openDB("emendum-outbox", 1, {
    upgrade: (made) => void made.createObjectStore(store, { keyPath: "order", autoIncrement: true }),
  });
}

/** A command in a few words, for who finds it again where its field is gone: “set note: dry”. */
export function inWords(command: Command): string {
  const typed = typedIn(command).join(", ");
  const shown = typed.length > longest ? `${typed.slice(0, longest)}…` : typed;
  return shown ? `${named(command.type)}: ${shown}` : named(command.type);
}

/** How much of what was typed is shown. */
const longest = 300;

/** A command's name in words. */
export const named = (did: string) => did.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

const anId = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** What a command says that a person can have typed or chosen: no ids, and not what stood there before. */
function typedIn(value: unknown): string[] {
  if (typeof value === "string") return value === "" || anId.test(value) ? [] : [value];
  if (typeof value === "number" || typeof value === "boolean") return [String(value)];
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, inside]) => (beside.has(key) ? [] : typedIn(inside)));
}

const beside = new Set(["type", "was"]);
