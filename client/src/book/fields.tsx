import { Autocomplete, TextField } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import { useMeasures } from "../controls/useMeasures";
import { Field, type Left } from "../controls/Field";
import { keepDraft, leftDraft, useDraft } from "./drafts";
import { type Editing, EditingContext, at, put, useEditing } from "./useEntry";
import { Choice, type Option } from "../controls/Choice";
import { wholeOr } from "../controls/wholeOr";
import { Check } from "../controls/Check";
import { Input } from "../controls/Input";
import styles from "./book.module.css";

interface TextProps {
  label: string;
  path: string;
  unit?: string;
  hint?: string;
  rows?: number;
  /** Nothing typed means none. */
  optional?: boolean;
  /** A whole number. */
  whole?: boolean;
  focus?: boolean;
}

/** A field of the entry; it saves by itself and keeps what was typed when it is refused. A rate is read back beside it, both ways round. */
export function TextOf({ label, path, unit, hint, rows, optional, whole, focus }: TextProps) {
  const { view, set } = useEditing();
  const value = String(at(view.entry, path) ?? "");
  const reading = view.readings[path];
  const said = reading ? `${reading.otherWay} · ${reading.sample}` : hint;
  return (
    <Field
      key={`${view.entry.id}${path}`}
      label={label}
      value={value}
      unit={unit}
      rows={rows}
      hint={said}
      focus={focus}
      left={leftDraft(`${view.entry.id} text ${path}`) as Left | undefined}
      onLeft={(left) => keepDraft(`${view.entry.id} text ${path}`, left)}
      onKeep={(text) => {
        const typed = rows ? text : text.trim();
        return set(path, optional && typed === "" ? null : whole ? wholeOr(typed) : typed);
      }}
    />
  );
}

/** One of a few things. */
export function ChoiceOf({
  label,
  path,
  options,
  none,
}: {
  label: string;
  path: string;
  options: readonly Option[];
  none?: string;
}) {
  const { view, set } = useEditing();
  const [wrong, setWrong] = useState("");
  const value = at(view.entry, path) as string | null;
  return (
    <Choice
      label={label}
      value={value ?? ""}
      options={options}
      none={none}
      wrong={wrong}
      onChoose={(now) =>
        void set(path, now === "" && none !== undefined ? null : now).then(
          () => setWrong(""),
          (error: Error) => setWrong(error.message),
        )
      }
    />
  );
}

/** Yes or no. */
export function CheckOf({ label, path, hint }: { label: string; path: string; hint?: string }) {
  const { view, set } = useEditing();
  const [wrong, setWrong] = useState("");
  return (
    <Check
      on={at(view.entry, path) === true}
      wrong={wrong}
      onTick={(on) =>
        void set(path, on).then(
          () => setWrong(""),
          (error: Error) => setWrong(error.message),
        )
      }
    >
      {label} {hint && <span className="note">{hint}</span>}
    </Check>
  );
}

export type Named = Schemas["NamedEntry"];

/** Every entry by name, for choosing. */
export function useNamed(): readonly Named[] {
  const { data } = useQuery(ask.bookChoices);
  return data ?? [];
}

/** Another entry of the Book, found by typing. */
export function EntryChoice({
  label,
  kinds,
  value,
  onChoose,
  none,
}: {
  label: string;
  kinds: readonly string[];
  value: string | null;
  onChoose: (id: string | null) => Promise<void>;
  none?: boolean;
}) {
  const named = useNamed();
  const [wrong, setWrong] = useState("");
  const options = named.filter((n) => kinds.includes(n.kind));
  const chosen = options.find((o) => o.id === value) ?? null;
  return (
    <Autocomplete
      key={value ?? ""}
      size="small"
      options={options}
      value={chosen as Named}
      disableClearable={!none}
      getOptionLabel={(o) => o.name}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onChange={(_, choice) =>
        onChoose(choice?.id ?? null).then(
          () => setWrong(""),
          (error: Error) => setWrong(error.message),
        )
      }
      renderInput={(params) => (
        <TextField {...params} label={label} error={wrong !== ""} helperText={wrong || undefined} />
      )}
    />
  );
}

/** Another entry at a path. */
export function EntryAt(props: { label: string; kinds: readonly string[]; path: string; none?: boolean }) {
  const { view, set } = useEditing();
  return (
    <EntryChoice
      {...props}
      value={at(view.entry, props.path) as string | null}
      onChoose={(id) => set(props.path, id)}
    />
  );
}

/** A list of things with a button for one more and one at each to take it away. One more begins empty, and is kept once it says all that it must. */
export function Rows<T extends object>({
  title,
  path,
  blank,
  add,
  needs,
  least = 0,
  children,
}: {
  title: string;
  path: string;
  /** One more, with nothing typed in it: what is an empty text is to be said. */
  blank: () => T;
  add: string;
  /** What must be said of it, where that is not all. */
  needs?: readonly (keyof T)[];
  least?: number;
  children: (path: string, index: number) => ReactNode;
}) {
  const editing = useEditing();
  const { view, set } = editing;
  const [wrong, setWrong] = useState("");
  const [draft, setDraft, drop] = useDraft<T | null>(`${view.entry.id} row ${path}`, null);
  // A list that an entry leaves out is empty.
  const items = (at(view.entry, path) ?? []) as T[];
  const more = draft ?? (items.length < least ? blank() : null);
  const keep = (next: T[]) =>
    void set(path, next).then(
      () => setWrong(""),
      (error: Error) => setWrong(error.message),
    );
  const isWhole = (row: T) =>
    (needs ?? (Object.keys(row) as (keyof T)[])).every((field) => row[field] !== "" && row[field] !== undefined);
  /** The entry as it would be with one more. */
  const withMore = (row: T) => {
    const whole = structuredClone(view.entry);
    put(whole, path, [...items, row]);
    return whole;
  };
  const begun: Editing = {
    ...editing,
    view: more ? { ...view, entry: withMore(more) } : view,
    set: async (where, value) => {
      const whole = withMore(more!);
      put(whole, where, value);
      const row = (at(whole, path) as T[])[items.length]!;
      setDraft(row);
      if (!isWhole(row)) return;
      await set(path, [...items, row]);
      drop();
    },
  };
  return (
    <section className={styles.rowsof} aria-label={title}>
      <h3>{title}</h3>
      {(more ? [...items, more] : items).map((_, i) => (
        // The same row before and after it is kept: whoever types in it stays there.
        <EditingContext key={i} value={i < items.length ? editing : begun}>
          <div
            className={styles.onerow}
            role="group"
            aria-label={`${title} ${i + 1}${i < items.length ? "" : ", not kept yet"}`}
          >
            {children(`${path}[${i}]`, i)}
            {(i < items.length ? items.length > least : draft !== null) && (
              <button
                className={`link ${styles.warn}`}
                aria-label={`Take away ${title.toLowerCase()} ${i + 1}`}
                onClick={() => (i < items.length ? keep(items.filter((__, k) => k !== i)) : drop())}
              >
                Take away
              </button>
            )}
          </div>
        </EditingContext>
      ))}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      {!more && (
        <button
          className="link"
          onClick={() => {
            const row = blank();
            if (isWhole(row)) keep([...items, row]);
            else setDraft(row);
          }}
        >
          {add}
        </button>
      )}
    </section>
  );
}

/** What an entry is measured against. Another kind of measure needs another rate, so both are kept together. */
export function MeasureChoice() {
  const { view, change } = useEditing();
  const entry = view.entry as Schemas["BookEntryProductionRate"] | Schemas["BookEntryPriceOnlyItem"];
  const [measure, setMeasure] = useState<string>(entry.measure);
  const [pace, setPace] = useState("");
  const [wrong, setWrong] = useState("");
  const { options, kindOf, unitOf } = useMeasures();
  // Another kind needs another pace, where there is one.
  const bound = entry.kind === "rate" && entry.paces.length > 0;
  const other = bound && kindOf(measure) !== kindOf(entry.measure);
  async function keep(next: string, typed: string | null) {
    try {
      await change((old) => {
        const changed = old as typeof entry;
        changed.measure = next as typeof entry.measure;
        if (changed.kind === "priceOnly" && kindOf(next) !== kindOf(entry.measure)) changed.unit = unitOf(next);
        if (changed.kind === "rate" && typed !== null) changed.paces = [{ coats: 1, pace: typed }];
        return changed;
      });
      setWrong("");
    } catch (error) {
      setWrong((error as Error).message);
    }
  }
  return (
    <div>
      <Choice
        label="Measured against"
        value={measure}
        options={options}
        wrong={other ? "" : wrong}
        onChoose={(next) => {
          setMeasure(next);
          setWrong("");
          if (!bound || kindOf(next) === kindOf(entry.measure)) void keep(next, null);
        }}
      />
      {other && entry.kind === "rate" && (
        <>
          <Input
            label="Pace for it"
            value={pace}
            placeholder={`like 10 ${unitOf(measure)} per h`}
            wrong={wrong}
            onType={setPace}
            onKeyDown={(e) => e.key === "Enter" && void keep(measure, pace)}
          />
          <button className="act" onClick={() => void keep(measure, pace)}>
            Keep measure and pace
          </button>
        </>
      )}
    </div>
  );
}
