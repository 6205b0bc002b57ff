import {
  type Answer,
  type Cell,
  type Command,
  type Job,
  type Moved,
  type Schemas,
  Refused,
  newId,
} from "../api/client";
import type { JobLink, Sent } from "./jobLink";

/** A command before it is sent. */
export type Edit = Command;

export interface JobState {
  job: Job;
  cells: ReadonlyMap<string, Cell>;
  /** What the last edit moved, shown for a moment. */
  delta: Schemas["DeltaView"] | null;
  /** A refusal that belongs to no field. */
  trouble: string;
  /** Something to know that is no refusal. */
  notice: string;
  /** Whether somebody has changed it in another window since the last edit made here. */
  elsewhere: boolean;
}

export const cellKey = (work: string, place: string) => `${work}/${place}`;

/** How often an edit is sent again that had no answer, or was asked to come again; and how long a pause lies between, in ms. */
const more = 3;
const pause = 400;

/**
 * One job as the browser holds it: what the server last said, the edits on their way, and what others have changed meanwhile. Plain TypeScript;
 * components only show it.
 */
export class OpenJob {
  private state: JobState;
  private readonly listeners = new Set<() => void>();
  private queue: Promise<unknown> = Promise.resolve();
  private waiting = 0;
  private catching: Promise<void> | null = null;
  /** The edit of a closed window that was offered to be taken back. */
  private offered = 0;
  private readonly unwatch: () => void;

  private constructor(
    private readonly link: JobLink,
    job: Job,
  ) {
    this.state = { job, cells: cellsOf(job), delta: null, trouble: "", notice: "", elsewhere: false };
    this.unwatch = link.watch({
      moved: (version, moved) => void this.hear(version, moved),
      standing: () => void this.catchUp().catch(() => undefined),
    });
  }

  static async load(link: JobLink): Promise<OpenJob> {
    return new OpenJob(link, await link.load());
  }

  /** Lets go of it: nothing more is heard of others. */
  close() {
    this.unwatch();
  }

  readonly get = () => this.state;

  /** Whether edits are on their way; no part of the state, so that only what says so is drawn anew. */
  readonly saving = () => this.waiting > 0;

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Sends an edit; edits go one after another. Rejects with what the server refuses. */
  send(edit: Edit): Promise<void> {
    return this.inTurn((sent) => this.link.send(sent, edit));
  }

  /** Sends an edit by a way of its own; its answer is an edit's answer. */
  through(post: (sent: Sent) => Promise<{ data?: Answer }>): Promise<void> {
    return this.inTurn(async (sent) => (await post(sent)).data!);
  }

  undo = () => this.tellOf(this.inTurn((sent) => this.undoing(sent)));
  redo = () => this.tellOf(this.inTurn((sent) => this.link.redo(sent)));

  /** Sends an edit whose refusal has no field to stand beside. */
  tell(edit: Edit): Promise<void> {
    return this.tellOf(this.send(edit));
  }

  /** Shows a refusal that has no field. */
  readonly say = (trouble: string) => this.set({ trouble, notice: "" });

  clearTrouble = () => this.say("");

  private tellOf(done: Promise<void>): Promise<void> {
    return done.catch((wrong: Error) => this.say(wrong.message));
  }

  /** What was done here is taken back first. With nothing of that left, what a closed window left is named, and taken back when it is asked for once more. */
  private async undoing(sent: Sent): Promise<Answer | null> {
    if (!this.state.job.undo.undo && !this.state.job.undo.leftBehind) await this.catchUp();
    const { undo, leftBehind } = this.state.job.undo;
    const version = !undo && leftBehind ? leftBehind.version : null;
    if (version !== null && version !== this.offered) {
      this.offered = version;
      this.set({
        notice: `Nothing that was done in this window is left to undo. Undo once more takes back “${words(leftBehind!.did)}”, done in a window that is closed.`,
      });
      return null;
    }
    return this.link.undo({ ...sent, base: this.state.job.version }, version);
  }

  private inTurn(post: (sent: Sent) => Promise<Answer | null>): Promise<void> {
    this.waiting++;
    this.announce();
    const id = newId();
    const done = this.queue
      .then(() => again(() => post({ id, base: this.state.job.version, client: this.link.client })))
      .then((answer) => (answer ? this.take(answer) : undefined))
      .finally(() => {
        this.waiting--;
        this.announce();
      });
    this.queue = done.catch((wrong: unknown) => {
      // What stands there now is shown; what was typed stays in its field.
      if (wrong instanceof Refused && wrong.status === 409) return this.catchUp().catch(() => undefined);
    });
    return done;
  }

  /** Takes the answer to an edit of this window. */
  private async take({ moved, yours }: Answer): Promise<void> {
    await this.accept(moved);
    this.set({
      job: { ...this.state.job, undo: yours.undo },
      delta: yours.delta,
      trouble: "",
      notice: "",
      elsewhere: false,
    });
  }

  /** Takes an edit of another window. */
  private async hear(version: number, moved: Moved | null): Promise<void> {
    if (version <= this.state.job.version) return;
    try {
      await (moved ? this.accept(moved) : this.catchUp());
      this.set({ elsewhere: true });
    } catch {
      // With the next edit, or when the line stands again, it is asked for once more.
    }
  }

  /** Asks for what has changed since the version that is held. Asked twice at once, it goes once. */
  private catchUp(): Promise<void> {
    return (this.catching ??= this.link
      .changesSince(this.state.job.version)
      .then(async ({ moved, yours }) => {
        const ahead = moved.to > this.state.job.version;
        await this.accept(moved);
        this.set({ job: { ...this.state.job, undo: yours.undo }, elsewhere: this.state.elsewhere || ahead });
      })
      .finally(() => {
        this.catching = null;
      }));
  }

  /** Takes what has changed between two versions: whole things as they are at the later, so that the earlier need not be the one that is held, only none that comes after it. */
  private async accept(moved: Moved): Promise<void> {
    // The server is behind: it was restored from a backup.
    if (moved.from > moved.to) return this.reload();
    if (moved.to <= this.state.job.version) return;
    if (moved.reload) return this.reload();
    if (moved.from > this.state.job.version) {
      await this.catching;
      // One in between was missed.
      if (moved.from > this.state.job.version) return this.catchUp();
    }
    const { job } = this.state;
    const cells = new Map(this.state.cells);
    for (const key of moved.goneCells) cells.delete(key);
    for (const of of moved.cells) for (const cell of of.cells) cells.set(cellKey(of.work, cell.place), cell);
    this.set({
      job: {
        ...job,
        ...moved.head,
        version: moved.to,
        tally: moved.tally,
        places: merged(job.places, moved.places, moved.placeOrder),
        work: merged(job.work, moved.work, moved.workOrder),
      },
      cells,
    });
  }

  private async reload(): Promise<void> {
    const held = this.state.job.version;
    const job = await this.link.load();
    // What has come meanwhile is newer.
    if (this.state.job.version === held || job.version > this.state.job.version) this.set({ job, cells: cellsOf(job) });
  }

  private set(part: Partial<JobState>) {
    this.state = { ...this.state, ...part };
    this.announce();
  }

  private announce() {
    for (const listener of this.listeners) listener();
  }
}

/** A command keeps its id, so that one whose answer was lost on the way, or that came when there was too much to do, can be sent again. */
async function again<T>(post: () => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      return await post();
    } catch (wrong) {
      const passing = wrong instanceof Refused && [0, 408, 429, 503].includes(wrong.status);
      // Without any answer, the second time tells that nobody is there.
      if (!passing || tries === (wrong.status === 0 ? 1 : more)) throw wrong;
      if (wrong.status !== 0) await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
}

/** A command's name in words. */
const words = (did: string) => did.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

function cellsOf(job: Job): Map<string, Cell> {
  const cells = new Map<string, Cell>();
  for (const of of job.cells) for (const cell of of.cells) cells.set(cellKey(of.work, cell.place), cell);
  return cells;
}

function merged<T extends { id: string }>(
  old: readonly T[],
  changed: readonly T[],
  order: readonly string[] | null,
): T[] {
  const all = new Map(old.map((thing) => [thing.id, thing]));
  for (const thing of changed) all.set(thing.id, thing);
  const ids = order ?? old.map((thing) => thing.id);
  return ids.map((id) => all.get(id)!);
}
