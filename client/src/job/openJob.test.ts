import { beforeEach, expect, test, vi } from "vitest";
import type { Cell, Job, Place, Work } from "../api/client";

/** What the server would say: each request waits here until the test answers it. */
const server = vi.hoisted(() => {
  interface Asked {
    path: string;
    method: string;
    body: { id: string; type?: string } | null;
    answer: (status: number, body: unknown) => void;
    lose: () => void;
  }
  const asked: Asked[] = [];
  globalThis.Request = class extends Request {
    constructor(url: string, init?: RequestInit) {
      super(new URL(url, "http://server.test"), init);
    }
  } as typeof Request;
  globalThis.fetch = async (input) => {
    const request = input as Request;
    const text = await request.text();
    return new Promise<Response>((resolve, reject) =>
      asked.push({
        path: new URL(request.url).pathname,
        method: request.method,
        body: text === "" ? null : (JSON.parse(text) as Asked["body"]),
        answer: (status, body) =>
          resolve(new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } })),
        lose: () => reject(new TypeError("fetch failed")),
      }),
    );
  };
  return asked;
});

const { OpenJob } = await import("./openJob");
const { Refused } = await import("../api/client");

const place = (id: string, name = id) => ({ id, name, group: "" }) as Place;
const work = (id: string, name = id) => ({ id, name, section: "Walls" }) as Work;
const cell = (at: string, state: Cell["state"] = "included") => ({ place: at, state, shown: null }) as Cell;

const job = (part: Partial<Job> = {}) =>
  ({
    id: "j",
    version: 1,
    places: [place("p1"), place("p2")],
    work: [work("w1")],
    cells: [{ work: "w1", cells: [cell("p1")] }],
    ...part,
  }) as Job;

const answer = (part: object = {}) => ({
  version: 2,
  reload: false,
  places: [],
  work: [],
  cells: [],
  goneCells: [],
  placeOrder: null,
  workOrder: null,
  delta: null,
  ...part,
});

const note = { type: "setNote", work: "w1", place: "p1", was: "", note: "dry" } as const;

/** The request that comes next. */
async function next() {
  await vi.waitFor(() => expect(server.length).toBeGreaterThan(0));
  return server.shift()!;
}

async function opened(what = job()) {
  const opening = OpenJob.load("j");
  (await next()).answer(200, what);
  return opening;
}

beforeEach(() => {
  server.length = 0;
});

test("an edit is posted with an id of its own, and its answer is merged into what is held", async () => {
  const open = await opened();
  const sent = open.send(note);
  const request = await next();
  expect(request).toMatchObject({ path: "/api/jobs/j/commands", method: "POST", body: { ...note } });
  expect(request.body!.id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  request.answer(
    200,
    answer({
      places: [place("p2", "Hall"), place("p3")],
      placeOrder: ["p3", "p2"],
      work: [work("w2")],
      workOrder: ["w2", "w1"],
      cells: [{ work: "w2", cells: [cell("p3", "excluded")] }],
      goneCells: ["w1/p1"],
    }),
  );
  await sent;
  const { job: now, cells } = open.get();
  expect(now.places.map((p) => p.name)).toEqual(["p3", "Hall"]);
  expect(now.work.map((w) => w.id)).toEqual(["w2", "w1"]);
  expect([...cells.keys()]).toEqual(["w2/p3"]);
  expect(now.version).toBe(2);
});

test("what an answer does not name stays the same object, so that nothing is drawn anew for it", async () => {
  const open = await opened();
  const before = open.get();
  const sent = open.send(note);
  (await next()).answer(200, answer({ places: [place("p2", "Hall")] }));
  await sent;
  expect(open.get().job.places[0]).toBe(before.job.places[0]);
  expect(open.get().cells.get("w1/p1")).toBe(before.cells.get("w1/p1"));
});

test("edits go one after another, in the order they were made", async () => {
  const open = await opened();
  const [first, second] = [open.send(note), open.send({ ...note, was: "dry", note: "wet" })];
  const request = await next();
  await Promise.resolve();
  expect(server).toEqual([]);
  request.answer(200, answer());
  await first;
  const after = await next();
  expect(after.body).toMatchObject({ note: "wet" });
  after.answer(200, answer({ version: 3 }));
  await second;
  expect(open.get().job.version).toBe(3);
});

test("an edit whose answer is lost is sent once more with the same id", async () => {
  const open = await opened();
  const sent = open.send(note);
  const lost = await next();
  lost.lose();
  const again = await next();
  expect(again.body).toEqual(lost.body);
  again.answer(200, answer());
  await sent;

  const hopeless = open.send(note);
  (await next()).lose();
  (await next()).lose();
  await expect(hopeless).rejects.toThrow("The server cannot be reached");
  expect(server).toEqual([]);
});

test("a refusal rejects with its field, changes nothing, and the next edit still goes", async () => {
  const open = await opened();
  const before = open.get();
  const sent = open.send(note);
  (await next()).answer(422, { title: "A note is at most 500 characters.", field: "note", position: 3 });
  const wrong = await sent.catch((e: unknown) => e);
  expect(wrong).toBeInstanceOf(Refused);
  expect(wrong).toMatchObject({
    message: "A note is at most 500 characters.",
    status: 422,
    field: "note",
    position: 3,
  });
  expect(open.get()).toBe(before);
  const after = open.send(note);
  (await next()).answer(200, answer());
  await after;
  expect(open.get().job.version).toBe(2);
});

test("a conflict loads the job as it is now, before the next edit goes", async () => {
  const open = await opened();
  const sent = open.send(note);
  const waiting = open.send(note);
  (await next()).answer(409, { title: "Changed since", field: "note" });
  await expect(sent).rejects.toMatchObject({ status: 409 });
  const reload = await next();
  expect(reload).toMatchObject({ path: "/api/jobs/j", method: "GET" });
  expect(server).toEqual([]);
  reload.answer(200, job({ version: 7, places: [place("p9")], cells: [] }));
  (await next()).answer(200, answer({ version: 8 }));
  await waiting;
  expect(open.get().job).toMatchObject({ version: 8, places: [{ id: "p9" }] });
  expect(open.get().cells.size).toBe(0);
});

test("an answer that is too long to be said asks for the whole job", async () => {
  const open = await opened();
  const sent = open.undo();
  const request = await next();
  expect(request.path).toBe("/api/jobs/j/undo");
  request.answer(200, answer({ reload: true }));
  (await next()).answer(200, job({ places: [place("p5")] }));
  await sent;
  expect(open.get().job.places.map((p) => p.id)).toEqual(["p5"]);
});

test("a refusal without a field is shown until an edit succeeds", async () => {
  const open = await opened();
  const told = open.redo();
  (await next()).answer(422, { title: "There is nothing to redo." });
  await told;
  expect(open.get().trouble).toBe("There is nothing to redo.");
  const sent = open.tell(note);
  (await next()).answer(200, answer());
  await sent;
  expect(open.get().trouble).toBe("");
});

test("it is saving from the first edit to the last answer, and says so only when that changes", async () => {
  const open = await opened();
  const heard: boolean[] = [];
  open.subscribe(() => heard.push(open.saving()));
  const both = Promise.all([open.send(note), open.send(note)]);
  expect(open.saving()).toBe(true);
  (await next()).answer(200, answer());
  const last = await next();
  expect(open.saving()).toBe(true);
  last.answer(200, answer());
  await both;
  await vi.waitFor(() => expect(open.saving()).toBe(false));
  expect(heard.at(-1)).toBe(false);
});

test("an answer that cannot be read is a refusal with a sentence", async () => {
  const open = await opened();
  const sent = open.send(note);
  const request = await next();
  request.answer(500, "not a problem");
  await expect(sent).rejects.toThrow(/no answer that can be read/);
});
