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
import { type Kept, type Outbox, named } from "./outbox";

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
  /** How often its proposal was heard of; each time what is shown of it is asked for anew. */
  happened: number;
  /** Edits that were made before the page was loaded, and refused: the fields they were typed in are gone. */
  refused: readonly Kept[];
}

/** How it stands with the edits made here: all answered, some on their way, or nobody there to answer them. */
export type Way = "saved" | "saving" | "stuck";

export const cellKey = (work: string, place: string) => `${work}/${place}`;

/** How often an edit that cannot be kept is sent again when it had no answer, or was asked to come again. */
const more = 3;

/** How long a pause lies before an edit is sent again, in ms: each twice the one before, up to the longest. */
const pause = 400;
const longestPause = 5000;

/** How many edits may wait for a server that does not answer. */
export const mostWaiting = 500;

/**
 * One job as the browser holds it: what the server last said, the edits on their way, and what others have changed meanwhile. Plain TypeScript;
 * components only show it.
 */
export class OpenJob {
  private state: JobState;
  private readonly listeners = new Set<() => void>();
  private queue: Promise<unknown> = Promise.resolve();
  private waiting = 0;
  private stuck = false;
  /** Sends again at once what waits. */
  private wake: () => void = () => undefined;
  private catching: Promise<void> | null = null;
  /** The edit of a closed window that was offered to be taken back. */
  private offered = 0;
  private readonly unwatch: () => void;

  private constructor(
    private readonly link: JobLink,
    private readonly outbox: Outbox,
    job: Job,
    left: readonly Kept[],
  ) {
    const refused = left.filter((one) => one.refused);
    this.state = {
      job,
      cells: cellsOf(job),
      delta: null,
      trouble: "",
      notice: "",
      elsewhere: false,
      happened: 0,
      refused,
    };
    this.unwatch = link.watch({
      moved: (version, moved) => void this.hear(version, moved),
      happened: () => this.set({ happened: this.state.happened + 1 }),
      standing: () => {
        this.wake();
        void this.catchUp().catch(() => undefined);
      },
    });
    for (const one of left) if (!one.refused) void this.sendLeft(one);
  }

  /** Opens a job; what was left in the outbox is sent first. */
  static async load(link: JobLink, outbox: Outbox): Promise<OpenJob> {
    return new OpenJob(link, outbox, await link.load(), await outbox.left(link.job));
  }

  /** Lets go of it: nothing more is heard of others. What is on its way still goes. */
  close() {
    this.unwatch();
  }

  /** Settles when nothing is on its way any more. */
  async idle(): Promise<void> {
    while (this.waiting > 0) await this.queue;
  }

  readonly get = () => this.state;

  /** How it stands with the edits made here; no part of the state, so that only what says so is drawn anew. */
  readonly way = (): Way => (this.stuck ? "stuck" : this.waiting > 0 ? "saving" : "saved");

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /**
   * Sends an edit; edits go one after another, each kept in the outbox until it is answered, and sent until it is. Rejects with what the server
   * refuses.
   */
  send(edit: Edit): Promise<void> {
    if (this.waiting >= mostWaiting)
      return Promise.reject(new Refused(`${mostWaiting} edits wait for the server already.`, 0, ""));
    const id = newId();
    const kept = this.outbox.put({ id, job: this.link.job, client: this.link.client, command: edit });
    return this.inTurn(async () => {
      try {
        return await this.untilAnswered(() => this.link.send(this.sent(id), edit));
      } finally {
        // Neither is waited for: a command that goes twice has the same id, and is done once.
        void kept.then((order) => (order === null ? undefined : this.outbox.drop(order)));
      }
    });
  }

  /** Sends an edit by a way of its own, which is not kept; its answer is an edit's answer. */
  through(post: (sent: Sent) => Promise<{ data?: Answer }>): Promise<void> {
    const id = newId();
    return this.inTurn(async () => (await again(() => post(this.sent(id)))).data!);
  }

  /** Sends what was left when the page was closed. What is refused now has no field: it is shown, and kept until somebody has seen it. */
  private sendLeft(one: Kept): Promise<void> {
    return this.inTurn(() => this.untilAnswered(() => this.link.send(this.sent(one.id), one.command))).then(
      () => this.outbox.drop(one.order),
      async (wrong: Error) => {
        await this.outbox.refuse(one.order, wrong.message);
        this.set({ refused: [...this.state.refused, { ...one, refused: wrong.message }] });
      },
    );
  }

  /** Forgets an edit that was refused. */
  async forget(order: number): Promise<void> {
    await this.outbox.drop(order);
    this.set({ refused: this.state.refused.filter((one) => one.order !== order) });
  }

  undo = () => this.tellOf(this.inTurn(() => this.undoing(newId())));
  redo = () => this.tellOf(this.redoing(newId()));

  private redoing(id: string): Promise<void> {
    return this.inTurn(() => this.untilAnswered(() => this.link.redo(this.sent(id))));
  }

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
  private async undoing(id: string): Promise<Answer | null> {
    if (!this.state.job.undo.undo && !this.state.job.undo.leftBehind) await this.catchUp();
    const { undo, leftBehind } = this.state.job.undo;
    const version = !undo && leftBehind ? leftBehind.version : null;
    if (version !== null && version !== this.offered) {
      this.offered = version;
      this.set({
        notice: `Nothing that was done in this window is left to undo. Undo once more takes back “${named(leftBehind!.did)}”, done in a window that is closed.`,
      });
      return null;
    }
    return this.untilAnswered(() => this.link.undo(this.sent(id), version));
  }

  /** What everything that edits goes with, at the time it goes. */
  private sent = (id: string): Sent => ({ id, base: this.state.job.version, client: this.link.client });

  private inTurn(post: () => Promise<Answer | null>): Promise<void> {
    this.waiting++;
    this.announce();
    const done = this.queue
      .then(post)
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

  /** Sends until there is an answer: a command keeps its id, so that one whose answer was lost on the way can be sent again. */
  private async untilAnswered<T>(post: () => Promise<T>): Promise<T> {
    try {
      for (let tries = 0; ; tries++) {
        try {
          return await post();
        } catch (wrong) {
          if (!passing(wrong)) throw wrong;
          // Without any answer, the second time tells that nobody is there.
          if (tries === 0 && wrong.status === 0) continue;
          this.setStuck(tries > 0);
          await this.pausing(Math.min(longestPause, pause * 2 ** tries));
        }
      }
    } finally {
      this.setStuck(false);
    }
  }

  /** Waits for a while, or until the line stands. */
  private async pausing(ms: number): Promise<void> {
    await new Promise<void>((resolve) => {
      const after = setTimeout(resolve, ms);
      this.wake = () => {
        clearTimeout(after);
        resolve();
      };
    });
    this.wake = () => undefined;
  }

  private setStuck(stuck: boolean) {
    if (stuck === this.stuck) return;
    this.stuck = stuck;
    this.announce();
  }

  /** Takes the answer to an edit of this window. */
  private async take({ moved, yours }: Answer): Promise<void> {
    await this.accept(moved, yours.undo, { delta: yours.delta, trouble: "", notice: "", elsewhere: false });
  }

  /** Takes an edit of another window. */
  private async hear(version: number, moved: Moved | null): Promise<void> {
    if (version <= this.state.job.version) return;
    try {
      await (moved ? this.accept(moved, undefined, { elsewhere: true }) : this.catchUp());
      if (!this.state.elsewhere) this.set({ elsewhere: true });
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
        await this.accept(moved, yours.undo, { elsewhere: this.state.elsewhere || ahead });
      })
      .finally(() => {
        this.catching = null;
      }));
  }

  /**
   * Takes what has changed between two versions, in one step with what else is known: whole things as they are at the later, so that the earlier
   * need not be the one that is held, only none that comes after it.
   */
  private async accept(moved: Moved, undo: Job["undo"] | undefined, also: Partial<JobState>): Promise<void> {
    // The server is behind: it was restored from a backup.
    const behind = moved.from > moved.to;
    const beyond = () => moved.from > this.state.job.version;
    if (!behind && !moved.reload && beyond()) await this.catching;
    // Between what is asked here and what is set lies no pause: the same change comes as an answer and is told, in any order.
    if (behind || (moved.reload && moved.to > this.state.job.version)) await this.reload();
    else if (beyond())
      await this.catchUp(); // One in between was missed.
    else if (moved.to > this.state.job.version) return this.set({ ...this.with(moved, undo), ...also });
    this.set({ ...also, job: { ...this.state.job, ...(undo && { undo }) } });
  }

  /** The job and its cells with what has changed. */
  private with(moved: Moved, undo: Job["undo"] | undefined): Pick<JobState, "job" | "cells"> {
    const { job } = this.state;
    const cells = new Map(this.state.cells);
    for (const key of moved.goneCells) cells.delete(key);
    for (const of of moved.cells) for (const cell of of.cells) cells.set(cellKey(of.work, cell.place), cell);
    return {
      job: {
        ...job,
        ...moved.head,
        ...(undo && { undo }),
        version: moved.to,
        tally: moved.tally,
        places: merged(job.places, moved.places, moved.placeOrder),
        work: merged(job.work, moved.work, moved.workOrder),
      },
      cells,
    };
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

/** Whether a refusal says nothing of what was sent: it was not heard, or came when there was too much to do. */
const passing = (wrong: unknown): wrong is Refused =>
  wrong instanceof Refused && [0, 408, 429, 503].includes(wrong.status);

/** Sends a few times what cannot be kept. */
async function again<T>(post: () => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      return await post();
    } catch (wrong) {
      if (!passing(wrong) || tries === (wrong.status === 0 ? 1 : more)) throw wrong;
      if (wrong.status !== 0) await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
}

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
