import { newId } from "../api/client";

const kept = "emendum-window";

/** How long a window waits for its id to be let go by the page that it replaces, in ms. Another window that has it does not let go. */
const patience = 400;

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
  return mine;
}

/** Holds the lock of an id until the window closes; false when another window holds it. */
function locked(name: string): Promise<boolean> {
  // Without the means to tell, the window is taken to be the only one.
  if (!("locks" in navigator)) return Promise.resolve(true);
  return new Promise((resolve) => {
    navigator.locks
      .request(`${kept} ${name}`, { signal: AbortSignal.timeout(patience) }, () => {
        resolve(true);
        return new Promise(() => undefined);
      })
      .catch(() => resolve(false));
  });
}
