import { beforeEach, expect, test, vi } from "vitest";
import { type Answer, type Cell, type Job, type Moved, type Place, Refused, type Work } from "../api/client";
import type { JobLink, Told } from "./jobLink";
import { type Edit, OpenJob } from "./openJob";

interface Asked {
  what: string;
  with: unknown[];
  answer: (body: unknown) => void;
  refuse: (status: number, title?: string, field?: string) => void;
}

/** What the server would say: each request waits here until the test answers it. */
const server: Asked[] = [];
let told: Told;
let watched = 0;

const asks =
  (what: string) =>
  (...args: unknown[]) =>
    new Promise<never>((resolve, reject) =>
      server.push({
        what,
        with: args,
        answer: (body) => resolve(body as never),
        refuse: (status, title = "No.", field = "") => reject(new Refused(title, status, field)),
      }),
    );

const link: JobLink = {
  client: "this window",
  load: asks("load"),
  send: asks("send"),
  undo: asks("undo"),
  redo: asks("redo"),
  changesSince: asks("changes"),
  watch: (listener) => {
    told = listener;
    watched++;
    return () => watched--;
  },
};

const place = (id: string, name = id) => ({ id, name, group: "" }) as Place;
const work = (id: string, name = id) => ({ id, name, section: "Walls" }) as Work;
const cell = (at: string, state: Cell["state"] = "included") => ({ place: at, state, shown: null }) as Cell;

const nothing = { undo: null, redo: null, leftBehind: null };

const job = (part: Partial<Job> = {}) =>
  ({
    id: "j",
    version: 1,
    places: [place("p1"), place("p2")],
    work: [work("w1")],
    cells: [{ work: "w1", cells: [cell("p1")] }],
    undo: nothing,
    ...part,
  }) as Job;

const moved = (from: number, to: number, part: Partial<Moved> = {}) =>
  ({
    from,
    to,
    reload: false,
    places: [],
    work: [],
    cells: [],
    goneCells: [],
    placeOrder: null,
    workOrder: null,
    head: null,
    ...part,
  }) as unknown as Moved;

const answer = (from: number, to: number, part: Partial<Moved> = {}, undo: object = nothing) =>
  ({ moved: moved(from, to, part), yours: { undo, delta: null }, repeated: false }) as unknown as Answer;

const note: Edit = { type: "setNote", work: "w1", place: "p1", was: "", note: "dry" };

/** The request that comes next. */
async function next(what?: string) {
  await vi.waitFor(() => expect(server.length).toBeGreaterThan(0));
  const asked = server.shift()!;
  if (what) expect(asked.what).toBe(what);
  return asked;
}

async function opened(what = job()) {
  const opening = OpenJob.load(link);
  (await next("load")).answer(what);
  return opening;
}

beforeEach(() => {
  server.length = 0;
  watched = 0;
});

test("an edit goes with an id of its own, the version held and its window, and its answer is merged", async () => {
  const open = await opened();
  const sent = open.send(note);
  const request = await next("send");
  expect(request.with).toMatchObject([{ base: 1, client: "this window" }, note]);
  expect((request.with[0] as { id: string }).id).toMatch(
    /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/,
  );
  request.answer(
    answer(1, 2, {
      places: [place("p2", "Hall"), place("p3")],
      placeOrder: ["p3", "p2"],
      work: [work("w2")],
      workOrder: ["w2", "w1"],
      cells: [{ work: "w2", cells: [cell("p3", "excluded")] }],
      goneCells: ["w1/p1"],
      head: { deduct: "vob" } as Moved["head"],
    }),
  );
  await sent;
  const { job: now, cells } = open.get();
  expect(now.places.map((p) => p.name)).toEqual(["p3", "Hall"]);
  expect(now.work.map((w) => w.id)).toEqual(["w2", "w1"]);
  expect([...cells.keys()]).toEqual(["w2/p3"]);
  expect(now).toMatchObject({ version: 2, deduct: "vob" });
});

test("what an answer does not name stays the same object, so that nothing is drawn anew for it", async () => {
  const open = await opened();
  const before = open.get();
  const sent = open.send(note);
  (await next()).answer(answer(1, 2, { places: [place("p2", "Hall")] }));
  await sent;
  expect(open.get().job.places[0]).toBe(before.job.places[0]);
  expect(open.get().cells.get("w1/p1")).toBe(before.cells.get("w1/p1"));
});

test("edits go one after another, in the order they were made, each with the version then held", async () => {
  const open = await opened();
  const [first, second] = [open.send(note), open.send({ ...note, was: "dry", note: "wet" } as Edit)];
  const request = await next();
  await Promise.resolve();
  expect(server).toEqual([]);
  request.answer(answer(1, 2));
  await first;
  const after = await next();
  expect(after.with).toMatchObject([{ base: 2 }, { note: "wet" }]);
  after.answer(answer(2, 3));
  await second;
  expect(open.get().job.version).toBe(3);
});

test("an edit whose answer is lost is sent once more with the same id, one that came too early when there is time", async () => {
  const open = await opened();
  const sent = open.send(note);
  const lost = await next();
  lost.refuse(0);
  const again = await next();
  expect(again.with[0]).toEqual(lost.with[0]);
  again.answer(answer(1, 2));
  await sent;

  const early = open.send(note);
  (await next()).refuse(503);
  (await next()).answer(answer(2, 3));
  await early;

  const hopeless = open.send(note);
  (await next()).refuse(0, "The server cannot be reached.");
  (await next()).refuse(0, "The server cannot be reached.");
  await expect(hopeless).rejects.toThrow("The server cannot be reached");
  expect(server).toEqual([]);
});

test("a refusal rejects with its field, changes nothing, and the next edit still goes", async () => {
  const open = await opened();
  const before = open.get();
  const sent = open.send(note);
  (await next()).refuse(422, "A note is at most 500 characters.", "note");
  await expect(sent).rejects.toMatchObject({ status: 422, field: "note" });
  expect(open.get()).toBe(before);
  const after = open.send(note);
  (await next()).answer(answer(1, 2));
  await after;
  expect(open.get().job.version).toBe(2);
});

test("after a conflict what stands there now is asked for, before the next edit goes", async () => {
  const open = await opened();
  const sent = open.send(note);
  const waiting = open.send(note);
  (await next()).refuse(409, "Changed since", "note");
  await expect(sent).rejects.toMatchObject({ status: 409 });
  const changes = await next("changes");
  expect(changes.with).toEqual([1]);
  expect(server).toEqual([]);
  changes.answer(answer(1, 7, { places: [place("p2", "Hall")] }));
  const then = await next("send");
  expect(then.with[0]).toMatchObject({ base: 7 });
  then.answer(answer(7, 8));
  await waiting;
  expect(open.get().job.version).toBe(8);
  expect(open.get().job.places[1]!.name).toBe("Hall");
});

test("an answer that is too long to be said asks for the whole job", async () => {
  const open = await opened();
  const sent = open.redo();
  (await next("redo")).answer(answer(1, 2, { reload: true }));
  (await next("load")).answer(job({ version: 2, places: [place("p5")] }));
  await sent;
  expect(open.get().job.places.map((p) => p.id)).toEqual(["p5"]);
});

test("a refusal without a field is shown until an edit succeeds", async () => {
  const open = await opened();
  const told = open.redo();
  (await next()).refuse(422, "There is nothing to redo.");
  await told;
  expect(open.get().trouble).toBe("There is nothing to redo.");
  const sent = open.tell(note);
  (await next()).answer(answer(1, 2));
  await sent;
  expect(open.get().trouble).toBe("");
});

test("it is saving from the first edit to the last answer, and says so only when that changes", async () => {
  const open = await opened();
  const heard: boolean[] = [];
  open.subscribe(() => heard.push(open.saving()));
  const both = Promise.all([open.send(note), open.send(note)]);
  expect(open.saving()).toBe(true);
  (await next()).answer(answer(1, 2));
  const last = await next();
  expect(open.saving()).toBe(true);
  last.answer(answer(2, 3));
  await both;
  await vi.waitFor(() => expect(open.saving()).toBe(false));
  expect(heard.at(-1)).toBe(false);
});

test("an edit of another window is taken as it comes, and one that is held already is not taken again", async () => {
  const open = await opened();
  told.moved(2, moved(1, 2, { places: [place("p2", "Hall")] }));
  await vi.waitFor(() => expect(open.get().elsewhere).toBe(true));
  expect(open.get().job.places[1]!.name).toBe("Hall");
  told.moved(2, moved(1, 2, { places: [place("p2", "Old")] }));
  await Promise.resolve();
  expect(open.get().job).toMatchObject({ version: 2, places: [{ name: "p1" }, { name: "Hall" }] });
  expect(server).toEqual([]);
});

test("an edit made on an older version takes what has changed since with it, and loses nothing of another's", async () => {
  const open = await opened();
  const sent = open.send(note);
  const request = await next();
  // The other's edit was first, and its news arrive before the answer.
  told.moved(2, moved(1, 2, { places: [place("p9", "Theirs")], placeOrder: ["p1", "p2", "p9"] }));
  await vi.waitFor(() => expect(open.get().job.version).toBe(2));
  request.answer(
    answer(1, 3, {
      places: [place("p9", "Theirs")],
      placeOrder: ["p1", "p2", "p9"],
      cells: [{ work: "w1", cells: [cell("p1", "excluded")] }],
    }),
  );
  await sent;
  expect(open.get().job.places.map((p) => p.name)).toEqual(["p1", "p2", "Theirs"]);
  expect(open.get().cells.get("w1/p1")!.state).toBe("excluded");
  expect(open.get()).toMatchObject({ job: { version: 3 }, elsewhere: false });
});

test("a gap in the versions is asked for, once", async () => {
  const open = await opened();
  told.moved(4, moved(3, 4));
  told.moved(5, moved(4, 5));
  const changes = await next("changes");
  expect(changes.with).toEqual([1]);
  expect(server).toEqual([]);
  changes.answer(answer(1, 5, { places: [place("p2", "Hall")] }));
  await vi.waitFor(() => expect(open.get().job.version).toBe(5));
  expect(open.get().job.places[1]!.name).toBe("Hall");
  // And so is what is only known to be there.
  told.moved(9, null);
  (await next("changes")).answer(answer(5, 9));
  await vi.waitFor(() => expect(open.get().job.version).toBe(9));
});

test("when the line stands again, what was missed is asked for; a server that is behind is believed", async () => {
  const open = await opened(job({ version: 50 }));
  told.standing();
  const changes = await next("changes");
  expect(changes.with).toEqual([50]);
  changes.answer(answer(50, 30, { reload: true }));
  (await next("load")).answer(job({ version: 30, places: [] }));
  await vi.waitFor(() => expect(open.get().job.version).toBe(30));
  expect(watched).toBe(1);
  open.close();
  expect(watched).toBe(0);
});

test("undo takes back what was done here; what a closed window left is named first", async () => {
  const open = await opened(job({ undo: { undo: "addPlace", redo: null, leftBehind: null } }));
  const mine = open.undo();
  const request = await next("undo");
  expect(request.with[1]).toBe(null);
  request.answer(answer(1, 2, {}, { ...nothing, leftBehind: { version: 1, did: "fillCells" } }));
  await mine;
  await open.undo();
  expect(open.get().notice).toContain("“fill cells”, done in a window that is closed");
  expect(server).toEqual([]);
  const theirs = open.undo();
  const second = await next("undo");
  expect(second.with).toMatchObject([{ base: 2 }, 1]);
  second.answer(answer(2, 3));
  await theirs;
  expect(open.get().notice).toBe("");
  // With nothing that is known of, the server is asked whether a window has closed meanwhile.
  const none = open.undo();
  (await next("changes")).answer(answer(3, 3));
  (await next("undo")).refuse(422, "There is nothing to undo.");
  await none;
  expect(open.get().trouble).toBe("There is nothing to undo.");
});
