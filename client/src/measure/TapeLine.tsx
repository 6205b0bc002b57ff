import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import { type Place, type Refused, type Schemas, newId } from "../api/client";
import { ask } from "../api/queries";
import { freeName } from "../controls/freeName";
import { useStay } from "../controls/useStay";
import { useJob } from "../job/JobContext";
import { TapeHelp } from "./TapeHelp";
import styles from "./measure.module.css";
import { read } from "../api/jobQueries";

export type Reading = Schemas["TapeView"];

interface Props {
  /** The place whose line is being changed; none adds a place. */
  editing: Place | undefined;
  after: Place | undefined;
  onReading: (reading: Reading | null) => void;
  onKept: (id: string) => void;
  onBack: () => void;
}

/** One-line entry off the tape, read back in plain words as it is typed. */
export function TapeLine({ editing, after, onReading, onKept, onBack }: Props) {
  const [open, { job }] = useJob();
  const start = editing
    ? editing.kind === "unmeasured"
      ? editing.line.replace(/:? not measured$/, " ")
      : editing.line
    : "";
  const [line, setLine] = useState(start);
  // The line as it stood when it was last looked at: somebody else may measure the place anew meanwhile.
  const [seen, setSeen] = useState(start);
  const [keeping, setKeeping] = useState(false);
  if (start !== seen && !keeping && (line === seen || line === start)) {
    setLine(start);
    setSeen(start);
  }
  const overtaken = start !== seen && !keeping && line !== start;
  // The heading follows the selection until one is typed.
  const [typedGroup, setGroup] = useState<string | null>(null);
  const group = typedGroup ?? editing?.group ?? after?.group ?? "";
  const [reading, setReading] = useState<Reading | null>(null);
  const [refused, setRefused] = useState<Refused | null>(null);
  const [help, setHelp] = useState(false);
  const [picked, setPicked] = useState(-1);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const sizes = useQuery(ask.usualSizes);
  const stay = useStay();

  useEffect(() => {
    if (editing) input.current?.focus();
  }, [editing]);
  useEffect(() => {
    if (!line.trim() || line === editing?.line) return;
    const stop = new AbortController();
    read
      .tape(job.id, { line, place: editing?.id ?? null }, stop.signal)
      .then((now) => {
        setReading(now);
        onReading(now);
      })
      .catch(() => undefined);
    return () => stop.abort();
  }, [line, job.id, job.units, job.deduct, editing, onReading]);

  // After a semicolon the first letters of an opening bring up the firm's usual sizes.
  const cut = line.lastIndexOf(";") + 1;
  const begun = line.slice(cut).trimStart().toLowerCase();
  const offers =
    cut > 0 && /^[a-z-]+ ?$/.test(begun) ? (sizes.data ?? []).filter((s) => s.startsWith(begun.trim())) : [];
  const offering = offers.length > 0;

  /** What was read goes with the line. */
  function forget() {
    setReading(null);
    onReading(null);
  }

  function take(size: string) {
    setLine(`${line.slice(0, cut)} ${size}`);
    setPicked(-1);
    input.current?.focus();
  }

  // The same name under one heading is asked about before it stands twice.
  const same =
    reading &&
    !reading.refusal &&
    job.places.find(
      (p) =>
        p.id !== editing?.id &&
        p.group === group.trim() &&
        p.name.toLowerCase() === reading.name.toLowerCase() &&
        reading.name !== "",
    );
  const another = (name: string) =>
    freeName(name, (free) => job.places.some((p) => p.group === group.trim() && p.name === free));

  function rewrite(line: string) {
    setLine(line);
    setRefused(null);
    input.current?.focus();
  }

  async function keep() {
    const place = editing?.id ?? newId();
    const still = stay();
    setRefused(null);
    setSeen(start);
    setKeeping(true);
    try {
      if (!editing) {
        const last = job.places.findLast((p) => p.group === group.trim());
        await open.send({ type: "addPlace", place, line, group, after: last?.id ?? null });
        setLine("");
        forget();
        input.current?.focus();
      } else {
        await open.send({ type: "remeasurePlace", place, was: editing.line, line });
        if (group.trim() !== editing.group)
          await open.send({
            type: "movePlaces",
            places: [{ place, was: editing.group }],
            group,
            before: null,
            after: null,
          });
      }
      if (still()) onKept(place);
    } catch (error) {
      setRefused(error as Refused);
    }
    setKeeping(false);
  }

  const trouble = refused ?? (line.trim() ? reading?.refusal : null);
  return (
    <form
      className={`panel ${styles.tapeline}`}
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
      onKeyDown={(e) => {
        if (e.target === input.current && offering && (e.key === "ArrowDown" || e.key === "ArrowUp"))
          setPicked((picked + (e.key === "ArrowDown" ? 1 : offers.length + 1)) % offers.length);
        else if (e.key === "Enter" && e.target === input.current && offering && picked >= 0) take(offers[picked]!);
        else if (e.key === "Enter" && e.target instanceof HTMLInputElement) void keep();
        else if (e.key === "Escape" && picked >= 0) setPicked(-1);
        else if (e.key === "Escape") {
          setLine(editing ? start : "");
          setSeen(start);
          forget();
          setRefused(null);
          onBack();
        } else return;
        e.preventDefault();
      }}
    >
      <div className={styles.fields}>
        <label htmlFor={`${id}line`}>{editing ? `Tape line of ${editing.name}` : "Tape line"}</label>
        <span className={styles.under}>
          <label htmlFor={`${id}group`}>under</label>
          <button
            type="button"
            className="link"
            aria-expanded={help}
            aria-controls={`${id}help`}
            onClick={() => setHelp(!help)}
          >
            {help ? "Hide the forms" : "All forms"}
          </button>
        </span>
        <input
          id={`${id}line`}
          ref={input}
          value={line}
          maxLength={2000}
          autoComplete="off"
          spellCheck={false}
          role="combobox"
          aria-expanded={offering}
          aria-controls={`${id}sizes`}
          aria-activedescendant={picked >= 0 && offering ? `${id}size${picked}` : undefined}
          placeholder={
            job.units === "feet"
              ? "Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2"
              : "Study 4.42 x 3.35 x 2.44; door 0.91 x 2.03; window 1.2 x 1.07 x2"
          }
          aria-describedby={`${id}says`}
          aria-invalid={refused !== null}
          onChange={(e) => {
            setLine(e.target.value);
            if (!e.target.value.trim()) forget();
            setRefused(null);
            setPicked(-1);
          }}
        />
        <input
          id={`${id}group`}
          className={styles.groupfield}
          value={group}
          maxLength={200}
          list={`${id}groups`}
          placeholder="heading / inner heading"
          onChange={(e) => setGroup(e.target.value)}
        />
        <datalist id={`${id}groups`}>
          {[...new Set(job.places.map((p) => p.group))].filter(Boolean).map((g) => (
            <option key={g} value={g} />
          ))}
        </datalist>
      </div>
      <div
        id={`${id}sizes`}
        role="listbox"
        aria-label="Usual sizes"
        className={offering ? styles.sizes : styles.hidden}
      >
        {offers.map((size, i) => (
          <div
            key={size}
            id={`${id}size${i}`}
            role="option"
            aria-selected={i === picked}
            onPointerDown={(e) => {
              e.preventDefault();
              take(size);
            }}
          >
            {size}
          </div>
        ))}
      </div>
      <div id={`${id}says`} role="status" className={styles.says}>
        {overtaken ? (
          <span className="error">
            It has been measured anew meanwhile: “{start}”. Enter puts yours in its place, Esc takes theirs.
          </span>
        ) : !line.trim() ? (
          <span className="note">
            name, length × width × height; then door, window or pass-through, width × height, x2 for a count
          </span>
        ) : offering && !refused ? (
          <span className="note">↓ and Enter take a usual size; or write its width × height</span>
        ) : trouble ? (
          <span className={refused ? "error" : "note"}>
            {trouble.position != null && <Marked line={line} at={trouble.position} />}
            {trouble.message}
            {trouble.suggestion && <> For instance: {trouble.suggestion}</>}
            {trouble.remedies?.map((r) => (
              <Remedy key={r.words} remedy={r} onTake={rewrite} />
            ))}
          </span>
        ) : (
          reading && (
            <span>
              Reads as{" "}
              {reading.words.map((word, i) => (i % 2 === 1 ? <b key={i}>{word}</b> : <span key={i}>{word}</span>))}
              {same && line.includes(reading.name) && (
                <>
                  . There is a {same.name} {group.trim() ? `under ${group.trim()}` : "here"} already. Is this{" "}
                  <Remedy
                    remedy={{ words: another(same.name), line: line.replace(reading.name, another(same.name)) }}
                    onTake={rewrite}
                  />
                  ?
                </>
              )}
              {reading.doubt && (
                <>
                  . {reading.doubt.says} Did you mean <Remedy remedy={reading.doubt.instead} onTake={rewrite} />?
                </>
              )}
              <button className={styles.keep}>
                Keep <span className="kbd">Enter</span>
              </button>
            </span>
          )
        )}
      </div>
      {help && <TapeHelp units={job.units} id={`${id}help`} />}
    </form>
  );
}

/** Another line that can be taken instead of the one that was typed. */
function Remedy({ remedy, onTake }: { remedy: Schemas["Remedy"]; onTake: (line: string) => void }) {
  return (
    <button type="button" className={styles.remedy} onClick={() => onTake(remedy.line)}>
      {remedy.words}
    </button>
  );
}

/** The part of the line that could not be read. */
function Marked({ line, at }: { line: string; at: number }) {
  const rest = line.slice(at, at + 14);
  return rest.trim() ? <mark>{rest}</mark> : null;
}
