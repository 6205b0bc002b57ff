import { counted } from "../controls/counted";
import { toggled } from "../controls/toggled";
import { Button, Dialog, DialogContent, DialogTitle } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Suspense, lazy, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { type Schemas, newId } from "../api/client";
import { ask } from "../api/queries";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { PlacePicks } from "./PlacePicks";
import { Preview } from "./Preview";
import { Input } from "../controls/Input";
import { Check } from "../controls/Check";
import { Radios } from "../controls/Radios";
import { answer } from "./edits";
import styles from "./work.module.css";

const CatalogueDialog = lazy(() =>
  import("../book/CatalogueDialog").then((file) => ({ default: file.CatalogueDialog })),
);

type Entry = Schemas["BookWorkView"];

/** Work from the Book: type to find, see what it takes in the selected places, answer what it asks, take or leave what goes with it. */
export function AddWork({ places, onClose }: { places: readonly string[]; onClose: () => void }) {
  const [open, { job }] = useJob();
  const [find, setFind] = useState("");
  const [at, setAt] = useState(0);
  const [where, setWhere] = useState<"selected" | "all" | "picked" | "none">(places.length > 1 ? "selected" : "none");
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [catalogue, setCatalogue] = useState(false);
  const [wrong, setWrong] = useState("");
  const [added, setAdded] = useState("");
  const input = useRef<HTMLInputElement>(null);
  // Entries on their way into the job: the next can be typed meanwhile, the same only once.
  const [adding, setAdding] = useState<readonly string[]>([]);
  const [round, setRound] = useState(0);
  const { data: entries } = useQuery(ask.bookWork);
  // An id stays with its entry until it is added, so that the preview of the same choice is the same question.
  // eslint-disable-next-line react-hooks/exhaustive-deps -- new ids for every round
  const ids = useMemo(() => new Map((entries ?? []).map((e) => [e.id, newId()])), [entries, round]);
  const shown = useMemo(() => ranked(entries ?? [], find), [entries, find]);
  const current = shown[Math.min(at, shown.length - 1)];
  const chosen = {
    all: () => job.places.map((p) => p.id),
    selected: () => [...places],
    picked: () => job.places.map((p) => p.id).filter((id) => picked.has(id)),
    none: () => [],
  }[where]();

  const edit = useMemo<Edit | null>(() => {
    if (!current) return null;
    const last = job.work.filter((w) => w.section === current.section).at(-1) ?? job.work.at(-1);
    return {
      type: "addWork",
      work: ids.get(current.id)!,
      entry: current.id,
      after: last?.id ?? null,
      places: chosen,
      answers: current.questions.flatMap((q) => {
        const text = answers[q.id]?.trim();
        return text ? [answer(q, text)] : [];
      }),
      with: current.accessories.flatMap((a) =>
        left.has(a.id) ? [] : [{ entry: a.id, work: ids.get(a.id) ?? newId() }],
      ),
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- chosen follows where, places and picked
  }, [current, job.work, job.places, where, places, picked, answers, left, ids]);
  const settled = useDeferredValue(useMemo(() => ({ edit, round }), [edit, round]));

  async function add() {
    if (!edit || !current || adding.includes(current.id)) return;
    setAdding([...adding, current.id]);
    setRound(round + 1);
    input.current?.focus();
    input.current?.select();
    try {
      await open.send(edit);
      setAdded(`${current.section}: ${current.name} added`);
      setWrong("");
    } catch (error) {
      setWrong(`${current.name}: ${(error as Error).message}`);
    } finally {
      setAdding((now) => now.filter((entry) => entry !== current.id));
    }
  }

  // Enter that was pressed before the Book's list was here is done as soon as it is.
  const pressed = useRef(false);
  useEffect(() => {
    if (!pressed.current || !edit) return;
    pressed.current = false;
    void add();
  });

  return (
    <Dialog open onClose={onClose} aria-labelledby="add-work" fullWidth maxWidth="md">
      <DialogTitle id="add-work">Add work from the Book</DialogTitle>
      <DialogContent className={styles.adding}>
        <div>
          <Input
            bare
            find
            focus
            inputRef={input}
            placeholder="Type to find"
            label="Find in the Book"
            value={find}
            onType={(text) => {
              setFind(text);
              setAt(0);
            }}
            onKeyDown={(e) => {
              if (e.key === "ArrowDown") setAt(Math.min(at + 1, shown.length - 1));
              else if (e.key === "ArrowUp") setAt(Math.max(at - 1, 0));
              else if (e.key === "Enter")
                if (entries) void add();
                else pressed.current = true;
              else return;
              e.preventDefault();
            }}
          />
          <ul className={styles.entries} aria-label="Entries">
            {shown.map((entry, i) => (
              <li key={entry.id} className={entry === current ? styles.current : undefined}>
                <button
                  onClick={() => setAt(i)}
                  onDoubleClick={() => void add()}
                  aria-pressed={entry === current}
                  aria-label={`${entry.section}: ${entry.name}`}
                >
                  <span>
                    <b>
                      {entry.section}: {entry.name}
                    </b>
                    <small>{entry.wording}</small>
                  </span>
                  <small>{job.work.some((w) => w.entry === entry.id) ? "in this job" : entry.pace}</small>
                </button>
              </li>
            ))}
          </ul>
          {entries && shown.length === 0 && <p className="note">Nothing in the Book has that.</p>}
          <button className="link" onClick={() => setCatalogue(true)}>
            Not there? Look in the supplier&apos;s catalogue
          </button>
          {catalogue && (
            <Suspense>
              <CatalogueDialog forWork onClose={() => setCatalogue(false)} />
            </Suspense>
          )}
        </div>
        {current && (
          <section
            aria-label={`${current.section}: ${current.name}, before it is added`}
            onKeyDown={(e) => {
              if (e.key !== "Enter" || !(e.target instanceof HTMLInputElement)) return;
              e.preventDefault();
              void add();
            }}
          >
            <h3>
              {current.section}: {current.name}
            </h3>
            <Radios
              label="Include it in"
              value={where}
              options={[
                { value: "none", words: "no place yet" },
                {
                  value: "selected",
                  words: places.length === 1 ? "the selected place" : `the ${places.length} selected places`,
                  closed: places.length === 0,
                },
                { value: "all", words: `all ${counted(job.places.length, "place")}` },
                {
                  value: "picked",
                  words: where === "picked" ? `these, ${counted(chosen.length, "place")}` : "places picked here",
                  closed: job.places.length === 0,
                },
              ]}
              onChoose={setWhere}
            >
              {where === "picked" && <PlacePicks chosen={picked} onChoose={setPicked} />}
            </Radios>
            {current.questions.map((q) => (
              <Input
                key={q.id}
                label={q.text}
                unit={q.unit}
                inputMode="decimal"
                placeholder={q.otherwise}
                value={answers[q.id] ?? ""}
                onType={(text) => setAnswers({ ...answers, [q.id]: text })}
              />
            ))}
            {current.accessories.length > 0 && (
              <fieldset>
                <legend>Usually goes with it</legend>
                {current.accessories.map((a) => (
                  <Check key={a.id} on={!left.has(a.id)} onTick={(on) => setLeft(toggled(left, a.id, !on))}>
                    {a.name}
                  </Check>
                ))}
              </fieldset>
            )}
            {current.hazard && <p className={styles.warn}>To be answered: {current.hazard}</p>}
            {chosen.length > 0 ? (
              // What is being added is not previewed on top of itself.
              <Preview edit={adding.length > 0 || settled.round !== round ? null : settled.edit} brief />
            ) : (
              <p className="note">Choose places to see what it takes there.</p>
            )}
            {wrong && (
              <p className="error" role="alert">
                {wrong}
              </p>
            )}
            <p className={styles.end}>
              <Button variant="contained" onClick={() => void add()}>
                Add {current.name}
              </Button>
              <Button onClick={onClose}>Close</Button>
              <span className="note" role="status">
                {added}
              </span>
            </p>
          </section>
        )}
      </DialogContent>
    </Dialog>
  );
}

/** What begins with the words first, then what has them in its name, then in its wording. */
function ranked(entries: readonly Entry[], find: string): Entry[] {
  const needle = find.trim().toLowerCase();
  const words = needle.split(/\s+/);
  const heading = (e: Entry) => `${e.section} ${e.name}`.toLowerCase();
  const rank = (e: Entry) =>
    heading(e).startsWith(needle) || e.name.toLowerCase().startsWith(needle)
      ? 0
      : words.every((w) => heading(e).includes(w))
        ? 1
        : 2;
  const found = entries.filter((e) =>
    words.every((w) => `${heading(e)} ${e.wording} ${e.pace}`.toLowerCase().includes(w)),
  );
  return [0, 1, 2].flatMap((r) => found.filter((e) => rank(e) === r)).slice(0, 100);
}
