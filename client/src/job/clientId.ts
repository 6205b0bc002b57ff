import { newId } from "../api/client";

const kept = "emendum-window";

/** How long a window waits for its id to be let go by the page that it replaces, in ms. A busy machine takes its time. */
const patience = 10_000;

let id: Promise<string> | undefined;

/**
 * Id of this window, kept while it is open: what is done here is taken back here. A duplicated window copies what is kept, so that a lock tells
 * the two apart: the second takes an id of its own.
 */
export function clientId(): Promise<string> {
  return (id ??= taken(sessionStorage.getItem(kept) ?? newId()));
}

/** Ids of the windows of this browser that are open. */
export async function openClients(): Promise<ReadonlySet<string>> {
  const locks = "locks" in navigator ? ((await navigator.locks.query()).held ?? []) : [];
  return new Set(
    locks.map((lock) => lock.name?.split(" ") ?? []).flatMap(([of, name]) => (of === kept ? [name!] : [])),
  );
}

async function taken(wanted: string): Promise<string> {
  const mine = (await locked(wanted)) ? wanted : newId();
  if (mine !== wanted) await locked(mine);
  sessionStorage.setItem(kept, mine);
  answerFor(mine);
  return mine;
}

/**
 * Holds the lock of an id until the window closes; false when another window holds it. The page that this one replaces lets go of it, however long
 * that takes; another window does not, and says so when it is asked.
 */
async function locked(name: string): Promise<boolean> {
  // Without the means to tell, the window is taken to be the only one.
  if (!("locks" in navigator)) return true;
  const giveUp = new AbortController();
  const late = setTimeout(() => giveUp.abort(), patience);
  const asking = new BroadcastChannel(`${kept} ${name}`);
  asking.onmessage = ({ data }) => data === "mine" && giveUp.abort();
  asking.postMessage("whose");
  try {
    return await new Promise((resolve) => {
      navigator.locks
        .request(`${kept} ${name}`, { signal: giveUp.signal }, () => {
          resolve(true);
          return new Promise(() => undefined);
        })
        .catch(() => resolve(false));
    });
  } finally {
    clearTimeout(late);
    asking.close();
  }
}

/** Tells a window that asks for this one's id that it is taken. */
function answerFor(mine: string) {
  if (!("locks" in navigator)) return;
  const asked = new BroadcastChannel(`${kept} ${mine}`);
  asked.onmessage = ({ data }) => {
    if (data === "whose") asked.postMessage("mine");
  };
}
