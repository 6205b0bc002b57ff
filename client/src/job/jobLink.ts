import type { HubConnection } from "@microsoft/signalr";
import { type Answer, type Job, type Moved, type Schemas, api } from "../api/client";
import { clientId } from "./clientId";

/** What everything that edits a job goes with: its id, the version held, this window. */
export type Sent = Pick<Schemas["SentCommand"], "id" | "base" | "client">;

/** What a link is told by others. */
export interface Told {
  /** An edit of another window has led to a version; null where only that is known. */
  moved: (version: number, moved: Moved | null) => void;
  /** Something has happened to its proposal: it was seen, asked about, declined. */
  happened: () => void;
  /** The line stands, again after a break: what was missed is to be asked for. */
  standing: () => void;
}

/** The way to one job on the server. */
export interface JobLink {
  readonly job: string;
  readonly client: string;
  load: () => Promise<Job>;
  send: (sent: Sent, command: Schemas["Command"]) => Promise<Answer>;
  undo: (sent: Sent, leftBehind: number | null) => Promise<Answer>;
  redo: (sent: Sent) => Promise<Answer>;
  changesSince: (version: number) => Promise<Answer>;
  /** Listens to the edits of others until the function that it gives is called. */
  watch: (told: Told) => () => void;
}

/** How long a broken line is left before it is tried again, in ms. */
const pause = 3000;

/** The way to a job over HTTP; edits of others come by a line of their own. */
export async function jobLink(id: string): Promise<JobLink> {
  const client = await clientId();
  const params = { path: { id } };
  return {
    job: id,
    client,
    load: async () => (await api.GET("/api/jobs/{id}", { params: { ...params, query: { client } } })).data!,
    send: async (sent, command) =>
      (await api.POST("/api/jobs/{id}/commands", { params, body: { ...sent, command } })).data!,
    undo: async (sent, leftBehind) =>
      (await api.POST("/api/jobs/{id}/undo", { params, body: { ...sent, leftBehind } })).data!,
    redo: async (sent) => (await api.POST("/api/jobs/{id}/redo", { params, body: sent })).data!,
    changesSince: async (since) =>
      (await api.GET("/api/jobs/{id}/changes", { params: { ...params, query: { since, client } } })).data!,
    watch: (told) => watched(id, client, told),
  };
}

function watched(id: string, client: string, told: Told): () => void {
  let ended = false;
  let line: HubConnection | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  async function begin() {
    try {
      line ??= await opened();
      await line.start();
      await shows(line);
    } catch {
      // A line that stands and shows nothing is begun anew like one that does not stand.
      await line?.stop();
      if (!ended) again = setTimeout(() => void begin(), pause);
    }
    if (ended) void line?.stop();
  }
  async function opened() {
    const { HubConnectionBuilder, LogLevel } = await import("@microsoft/signalr");
    const made = new HubConnectionBuilder()
      .withUrl("/api/live")
      .withAutomaticReconnect({ nextRetryDelayInMilliseconds: () => pause })
      .configureLogging(LogLevel.None)
      .build();
    made.on("moved", (job: string, version: number, moved: string) => {
      if (job === id) told.moved(version, moved === "" ? null : (JSON.parse(moved) as Moved));
    });
    made.on("happened", (job: string) => {
      if (job === id) told.happened();
    });
    // Broken again before it was said what is shown, it connects again.
    made.onreconnected(() => void shows(made).catch(() => undefined));
    return made;
  }
  async function shows(at: HubConnection) {
    await at.invoke("Watch", id, client);
    told.standing();
  }
  void begin();
  return () => {
    ended = true;
    clearTimeout(again);
    void line?.stop();
  };
}
