import { useEffect, useId, useRef, useState } from "react";
import { type Place, type Refused, type Schemas, api, newId } from "../api/client";
import { useJob } from "../job/JobContext";

interface Props {
  /** The place whose line is being changed; none adds a place. */
  editing: Place | undefined;
  after: Place | undefined;
  onKept: (id: string) => void;
  onBack: () => void;
}

/** One-line entry off the tape, read back in plain words as it is typed. */
export function TapeLine({ editing, after, onKept, onBack }: Props) {
  const [open, { job }] = useJob();
  const [line, setLine] = useState(editing?.line ?? "");
  const [group, setGroup] = useState(editing?.group ?? after?.group ?? "");
  const [reading, setReading] = useState<{ line: string; view: Schemas["TapeView"] } | null>(null);
  const [refused, setRefused] = useState<Refused | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();

  useEffect(() => {
    if (editing) input.current?.focus();
  }, [editing]);
  useEffect(() => {
    if (!line.trim()) return;
    const stop = new AbortController();
    api
      .POST("/api/jobs/{id}/read-tape", { params: { path: { id: job.id } }, body: { line }, signal: stop.signal })
      .then(({ data }) => setReading({ line, view: data! }))
      .catch(() => undefined);
    return () => stop.abort();
  }, [line, job.id]);

  async function keep() {
    const place = editing?.id ?? newId();
    setRefused(null);
    try {
      if (!editing) {
        const last = job.places.filter((p) => p.group === group.trim()).at(-1);
        await open.send({ type: "addPlace", place, line, group, after: last?.id ?? null });
        setLine("");
        setReading(null);
        input.current?.focus();
      } else {
        await open.send({ type: "remeasurePlace", place, was: editing.line, line });
        if (group.trim() !== editing.group) await open.send({ type: "setGroup", place, was: editing.group, group });
      }
      onKept(place);
    } catch (error) {
      setRefused(error as Refused);
    }
  }

  const view = reading && line.trim() ? reading.view : null;
  const trouble = refused
    ? { message: refused.message, position: refused.position, suggestion: refused.suggestion }
    : view?.refusal;
  return (
    <form
      className="panel tapeline"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
      onKeyDown={(e) => {
        if (e.key === "Enter" && e.target instanceof HTMLInputElement) {
          e.preventDefault();
          void keep();
        } else if (e.key === "Escape") {
          setLine("");
          setRefused(null);
          onBack();
        }
      }}
    >
      <div className="fields">
        <label htmlFor={`${id}line`}>{editing ? `Tape line of ${editing.name}` : "Tape line"}</label>
        <label htmlFor={`${id}group`}>under</label>
        <input
          id={`${id}line`}
          ref={input}
          value={line}
          maxLength={2000}
          autoComplete="off"
          spellCheck={false}
          placeholder={
            job.units === "feet"
              ? "Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2"
              : "Study 4.42 x 3.35 x 2.44; door 0.91 x 2.03; window 1.2 x 1.07 x2"
          }
          aria-describedby={`${id}says`}
          aria-invalid={refused !== null}
          onChange={(e) => {
            setLine(e.target.value);
            setRefused(null);
          }}
        />
        <input
          id={`${id}group`}
          className="groupfield"
          value={group}
          maxLength={120}
          list={`${id}groups`}
          placeholder="heading"
          onChange={(e) => setGroup(e.target.value)}
        />
        <datalist id={`${id}groups`}>
          {[...new Set(job.places.map((p) => p.group))].filter(Boolean).map((g) => (
            <option key={g} value={g} />
          ))}
        </datalist>
      </div>
      <div id={`${id}says`} role="status" className="says">
        {!line.trim() ? (
          <span className="note">
            name, length × width × height; then door, window or pass-through, width × height, x2 for a count
          </span>
        ) : trouble ? (
          <span className={refused ? "error" : "note"}>
            {trouble.position != null && <Marked line={line} at={trouble.position} />}
            {trouble.message}
            {trouble.suggestion && <> For instance: {trouble.suggestion}</>}
          </span>
        ) : (
          view && (
            <span>
              Reads as{" "}
              {view.words.map((word, i) => (i % 2 === 1 ? <b key={i}>{word}</b> : <span key={i}>{word}</span>))}
              <button className="keep">
                Keep <span className="kbd">Enter</span>
              </button>
            </span>
          )
        )}
      </div>
    </form>
  );
}

/** The part of the line that could not be read. */
function Marked({ line, at }: { line: string; at: number }) {
  const rest = line.slice(at, at + 14);
  return rest.trim() ? <mark>{rest}</mark> : null;
}
