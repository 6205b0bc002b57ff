import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { type Answer, type Cell, type Job, type Moved, type Place, Refused, type Work, newId } from "../api/client";
import type { JobLink, Told } from "./jobLink";
import { type Edit, OpenJob, mostWaiting } from "./openJob";
import { type Outbox, inWords, outbox } from "./outbox";

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
  job: "j",
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
  // Longer than any pause before an edit is sent again: with a clock of the test's own each look moves it on by as much as lies between two.
  await vi.waitFor(() => expect(server.length).toBeGreaterThan(0), { timeout: 15_000 });
  const asked = server.shift()!;
  if (what) expect(asked.what).toBe(what);
  return asked;
}

/** Windows of the browser that are open. */
let windows: ReadonlySet<string>;
let box: Outbox;

async function opened(what = job()) {
  const opening = OpenJob.load(link, box);
  (await next("load")).answer(what);
  return opening;
}

beforeEach(() => {
  server.length = 0;
  watched = 0;
  windows = new Set([link.client]);
  box = outbox(link.client, () => Promise.resolve(windows));
});

afterEach(() => {
  // Whatever becomes of a test, the next one has the real clock.
  vi.useRealTimers();
  indexedDB = new IDBFactory();
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

test("an edit whose answer is lost is sent again with the same id until there is one; those made meanwhile wait", async () => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
  const open = await opened();
  const first = open.send(note);
  const lost = await next();
  expect(open.way()).toBe("saving");
  lost.refuse(0, "The server cannot be reached.");
  const again = await next();
  expect(again.with).toEqual(lost.with);
  again.refuse(0, "The server cannot be reached.");
  const second = open.send({ ...note, was: "dry", note: "wet" } as Edit);
  await vi.waitFor(() => expect(open.way()).toBe("stuck"));
  // The pause before the next try is over at once: waited for, it would take nearly as long as the test waits at most.
  await vi.advanceTimersByTimeAsync(5000);
  for (const status of [0, 408, 429]) {
    (await next()).refuse(status);
    await vi.advanceTimersByTimeAsync(5000);
  }
  const heard = await next();
  expect(heard.with).toEqual(lost.with);
  heard.answer(answer(1, 2));
  await first;
  expect(open.way()).toBe("saving");
  const after = await next();
  expect(after.with[1]).toMatchObject({ note: "wet" });
  // One that came when there was too much to do is sent again, too, and a line that stands does not let it wait.
  after.refuse(503);
  await vi.waitFor(() => expect(vi.getTimerCount()).toBe(1), { interval: 1 });
  told.standing();
  expect(vi.getTimerCount()).toBe(0);
  (await next("changes")).answer(answer(2, 2));
  (await next("send")).answer(answer(2, 3));
  await second;
  await vi.waitFor(() => expect(open.way()).toBe("saved"));
}, 30_000);

test("an edit that goes by a way of its own is not kept: it is refused where nobody answers", async () => {
  const open = await opened();
  const hopeless = open.through(asks("keep") as never);
  (await next("keep")).refuse(0, "The server cannot be reached.");
  (await next("keep")).refuse(0, "The server cannot be reached.");
  await expect(hopeless).rejects.toThrow("The server cannot be reached");
  expect(server).toEqual([]);
});

test("what had no answer when the page was closed is sent when the job is opened again, in order and with its ids", async () => {
  const before = await opened();
  const edits = ["dry", "wet", "damp"].map((text) => ({ ...note, note: text }) as Edit);
  const first = before.send(edits[0]!);
  for (const edit of edits.slice(1)) void before.send(edit);
  (await next()).answer(answer(1, 2));
  await first;
  const cut = await next();
  // The page is closed with the second on its way.
  const after = await opened(job({ version: 2 }));
  const sent = [await next("send")];
  sent[0]!.answer(answer(2, 3));
  sent.push(await next("send"));
  sent[1]!.answer(answer(3, 4));
  await after.idle();
  expect(sent.map((one) => one.with[1])).toEqual([edits[1], edits[2]]);
  expect((sent[0]!.with[0] as { id: string }).id).toBe((cut.with[0] as { id: string }).id);
  expect(await box.left("j")).toEqual([]);
  expect(after.get().job.version).toBe(4);
});

test("of what was left, what is refused is shown until it is forgotten, and the rest goes on", async () => {
  const left = (line: string): Edit => ({ type: "addPlace", place: newId(), line, group: "", after: null });
  for (const line of ["Hall 10 x 12", "Study 9 x 9"])
    await box.put({ id: newId(), job: "j", client: link.client, command: left(line) });
  const open = await opened();
  (await next("send")).refuse(422, "There is a Hall already.");
  (await next("send")).answer(answer(1, 2));
  await open.idle();
  const [one] = open.get().refused;
  expect(open.get().refused).toHaveLength(1);
  expect(inWords(one!.command)).toBe("add place: Hall 10 x 12");
  expect(one!.refused).toBe("There is a Hall already.");
  // It is still there when the page is loaded once more, and is not sent again.
  const again = await opened();
  expect(again.get().refused).toEqual(open.get().refused);
  expect(await box.jobs()).toEqual([]);
  await again.forget(one!.order);
  expect(again.get().refused).toEqual([]);
  expect(await box.left("j")).toEqual([]);
  expect(server).toEqual([]);
});

test("what a closed window left is sent by another; what an open one has on its way is its own", async () => {
  const of = (client: string, jobId = "j") => box.put({ id: client, job: jobId, client, command: note });
  for (const client of ["closed", "open", link.client]) await of(client);
  await of("closed", "k");
  windows = new Set([link.client, "open"]);
  expect((await box.left("j")).map((one) => one.id)).toEqual(["closed", link.client]);
  expect(await box.jobs()).toEqual(["j", "k"]);
});

test("where the browser keeps nothing, edits go as they are", async () => {
  vi.spyOn(indexedDB, "open").mockImplementation(() => {
    throw new Error("It is not allowed here.");
  });
  box = outbox(link.client, () => Promise.resolve(windows));
  const open = await opened();
  const sent = open.send(note);
  (await next("send")).answer(answer(1, 2));
  await sent;
  expect(open.get().job.version).toBe(2);
  vi.restoreAllMocks();
});

test("only so many edits wait for a server that does not answer", async () => {
  const open = await opened();
  for (let i = 0; i < mostWaiting; i++) void open.send(note);
  await expect(open.send(note)).rejects.toThrow(`${mostWaiting} edits wait for the server already.`);
  await next("send");
});

test("a command is said by its name and what was typed in it, without ids and what stood there before", () => {
  const place = "0199a0b2-0000-7000-8000-000000000000";
  expect(inWords({ type: "addPlace", place, line: "Hall 10 x 12", group: "Ground", after: null })).toBe(
    "add place: Hall 10 x 12, Ground",
  );
  expect(inWords({ type: "setNote", work: place, place, was: "wet", note: "x".repeat(400) })).toBe(
    `set note: ${"x".repeat(300)}…`,
  );
  expect(inWords({ type: "removeWork", work: place })).toBe("remove work");
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
  const heard: string[] = [];
  open.subscribe(() => heard.push(open.way()));
  const both = Promise.all([open.send(note), open.send(note)]);
  expect(open.way()).toBe("saving");
  (await next()).answer(answer(1, 2));
  const last = await next();
  expect(open.way()).toBe("saving");
  last.answer(answer(2, 3));
  await both;
  await vi.waitFor(() => expect(open.way()).toBe("saved"));
  expect(heard.at(-1)).toBe("saved");
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

test("the answer to an edit and what is told of it and of the next come at once, in any order: each change is taken once", async () => {
  const open = await opened();
  void open.send(note);
  const sent = await next("send");
  const first = { places: [place("p3")], placeOrder: ["p1", "p2", "p3"] };
  sent.answer(answer(1, 2, first));
  told.moved(2, moved(1, 2, first));
  told.moved(3, moved(2, 3, { places: [place("p4")], placeOrder: ["p1", "p2", "p3", "p4"] }));
  await vi.waitFor(() => expect(open.get().job.version).toBe(3));
  await open.idle();
  expect(open.get().job.places.map((p) => p.id)).toEqual(["p1", "p2", "p3", "p4"]);
  expect(server).toEqual([]);
});
