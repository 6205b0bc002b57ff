import { clientId, openClients } from "./clientId";
import { jobLink } from "./jobLink";
import { OpenJob } from "./openJob";
import { type Outbox, outbox } from "./outbox";

interface Held {
  opening: Promise<OpenJob>;
  /** How many show it. */
  by: number;
}

/** The jobs of this window that are shown, or whose edits are on their way: one each, so that edits go in one order. */
const held = new Map<string, Held>();

let box: Promise<Outbox> | undefined;

/** The outbox of this window. */
const ours = () => (box ??= clientId().then((client) => outbox(client, openClients)));

/** Opens a job, or takes the one that is open. Who holds it lets it go. */
export function holdJob(id: string): Promise<OpenJob> {
  const there = held.get(id);
  if (there) {
    there.by++;
    return there.opening;
  }
  const opening = Promise.all([jobLink(id), ours()]).then(([link, left]) => OpenJob.load(link, left));
  held.set(id, { opening, by: 1 });
  // One that did not open is tried anew by the next.
  opening.catch(() => held.delete(id));
  return opening;
}

/** Lets a job go. It is closed when nobody shows it and nothing of it is on its way. */
export async function letGo(id: string): Promise<void> {
  const one = held.get(id);
  if (!one) return;
  one.by--;
  const open = await one.opening.catch(() => null);
  await open?.idle();
  if (one.by > 0 || held.get(id) !== one) return;
  held.delete(id);
  open?.close();
}

/** Sends what was left in the outbox when the page was closed, of every job. */
export async function sendLeft(): Promise<void> {
  for (const job of await (await ours()).jobs()) {
    await holdJob(job).catch(() => undefined);
    await letGo(job);
  }
}
