import createClient from "openapi-fetch";
import type { components, paths } from "./types.gen";

export type Schemas = components["schemas"];
export type Job = Schemas["JobView"];
export type Place = Schemas["PlaceView"];
export type Work = Schemas["WorkView"];
export type Cell = Schemas["CellView"];
export type FigureView = Schemas["FigureView"];
export type Answer = Schemas["AnswerView"];
export type Moved = Schemas["MovedView"];
export type Command = Schemas["Command"];

/** What the server says when it refuses: a sentence, and the field it concerns. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly field: string,
    readonly position?: number,
    readonly suggestion?: string,
    readonly remedies?: Schemas["Remedy"][],
    /** What stands there now, where somebody else has changed it. */
    readonly current?: unknown,
  ) {
    super(message);
  }
}

interface Problem {
  title?: string;
  field?: string;
  position?: number;
  suggestion?: string;
  remedies?: Schemas["Remedy"][];
  current?: unknown;
}

export const api = createClient<paths>({ baseUrl: "" });

api.use({
  async onResponse({ response }) {
    if (!response.ok) throw await refusal(response);
  },
  onError({ error }) {
    if (error instanceof Refused || (error instanceof Error && error.name === "AbortError")) return error;
    return new Refused("The server cannot be reached. What you typed is still here; try again.", 0, "");
  },
});

/** Sends a file as it is. */
export async function sendFile<T>(path: string, file: File, type = "application/octet-stream"): Promise<T> {
  const response = await fetch(path, {
    method: "POST",
    body: file,
    headers: { "Content-Type": type },
  });
  if (!response.ok) throw await refusal(response);
  return (await response.json()) as T;
}

export async function refusal(response: Response): Promise<Refused> {
  const problem = (await response.json().catch(() => ({}))) as Problem;
  const message = problem.title ?? "The server gave no answer that can be read.";
  return new Refused(
    message,
    response.status,
    problem.field ?? "",
    problem.position,
    problem.suggestion,
    problem.remedies,
    problem.current,
  );
}

/** A UUIDv7: ids are made here, so that sending again is safe. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const time = BigInt(Date.now());
  for (let i = 0; i < 6; i++) bytes[i] = Number((time >> BigInt(8 * (5 - i))) & 0xffn);
  bytes[6] = (bytes[6]! & 0x0f) | 0x70;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
