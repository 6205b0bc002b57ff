import { type Answer, type Cell, type Command, type Job, type Schemas, Refused, api, newId } from "../api/client";

type WithoutId<T> = T extends unknown ? Omit<T, "id"> : never;
/** A command before it is given its id. */
export type Edit = WithoutId<Command>;

export interface JobState {
  job: Job;
  cells: ReadonlyMap<string, Cell>;
  /** What the last edit moved, shown for a moment. */
  delta: Schemas["DeltaView"] | null;
  /** A refusal that belongs to no field. */
  trouble: string;
}

export const cellKey = (work: string, place: string) => `${work}/${place}`;

/** One job as the browser holds it: what the server last said, and the edits on their way. Plain TypeScript; components only show it. */
export class OpenJob {
  private state: JobState;
  private readonly listeners = new Set<() => void>();
  private queue: Promise<unknown> = Promise.resolve();
  private waiting = 0;

  private constructor(job: Job) {
    this.state = { job, cells: cellsOf(job), delta: null, trouble: "" };
  }

  static async load(id: string): Promise<OpenJob> {
    return new OpenJob(await fetchJob(id));
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
    const body = { ...edit, id: newId() } as Command;
    const path = { id: this.state.job.id };
    return this.inTurn(() => again(() => api.POST("/api/jobs/{id}/commands", { params: { path }, body })));
  }

  /** Sends an edit by a way of its own; its answer is an edit's answer. */
  through(post: () => Promise<{ data?: Answer }>): Promise<void> {
    return this.inTurn(post);
  }

  undo = () => this.reverse("/api/jobs/{id}/undo");
  redo = () => this.reverse("/api/jobs/{id}/redo");

  /** Sends an edit whose refusal has no field to stand beside. */
  tell(edit: Edit): Promise<void> {
    return this.send(edit).catch((wrong: Error) => this.say(wrong.message));
  }

  /** Shows a refusal that has no field. */
  readonly say = (trouble: string) => this.set({ trouble });

  clearTrouble = () => this.say("");

  private reverse(url: "/api/jobs/{id}/undo" | "/api/jobs/{id}/redo"): Promise<void> {
    const body = { id: newId() };
    return this.inTurn(() => again(() => api.POST(url, { params: { path: { id: this.state.job.id } }, body }))).catch(
      (wrong: Error) => this.say(wrong.message),
    );
  }

  private inTurn(post: () => Promise<{ data?: Answer }>): Promise<void> {
    this.waiting++;
    this.announce();
    const done = this.queue
      .then(post)
      .then(({ data }) => this.take(data!))
      .finally(() => {
        this.waiting--;
        this.announce();
      });
    this.queue = done.catch((wrong: unknown) => {
      if (wrong instanceof Refused && wrong.status === 409) return this.reload();
    });
    return done;
  }

  private async reload(): Promise<void> {
    const job = await fetchJob(this.state.job.id);
    this.set({ job, cells: cellsOf(job) });
  }

  private async take(answer: Answer): Promise<void> {
    if (answer.reload) await this.reload();
    const { job } = this.state;
    const cells = new Map(this.state.cells);
    for (const key of answer.goneCells) cells.delete(key);
    for (const of of answer.cells) for (const cell of of.cells) cells.set(cellKey(of.work, cell.place), cell);
    this.set({
      job: {
        ...job,
        version: answer.version,
        info: answer.info,
        units: answer.units,
        deduct: answer.deduct,
        rule: answer.rule,
        conditions: answer.conditions,
        pace: answer.pace,
        sections: answer.sections,
        crew: answer.crew,
        pricing: answer.pricing,
        proposal: answer.proposal,
        tally: answer.tally,
        undo: answer.undo,
        places: merged(job.places, answer.places, answer.placeOrder),
        work: merged(job.work, answer.work, answer.workOrder),
      },
      cells,
      delta: answer.delta,
      trouble: "",
    });
  }

  private set(part: Partial<JobState>) {
    this.state = { ...this.state, ...part };
    this.announce();
  }

  private announce() {
    for (const listener of this.listeners) listener();
  }
}

/** A command keeps its id, so that one whose answer was lost on the way can be sent again. */
async function again<T>(post: () => Promise<T>): Promise<T> {
  try {
    return await post();
  } catch (wrong) {
    if (wrong instanceof Refused && wrong.status === 0) return post();
    throw wrong;
  }
}

async function fetchJob(id: string): Promise<Job> {
  return (await api.GET("/api/jobs/{id}", { params: { path: { id } } })).data!;
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
