import {
  type KeyboardEvent,
  memo,
  useCallback,
  useContext,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { type Place, newId } from "../api/client";
import { FigureText } from "../figure/FigureText";
import { WhyContext, useJob } from "../job/JobContext";
import { type Row, isUnder, rowKey, rowsOf } from "./placeRows";
import { Input } from "../controls/Input";
import styles from "./measure.module.css";
import { classes } from "../controls/classes";

interface Props {
  selected: string | undefined;
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>, primary: string | undefined) => void;
  onEdit: (id: string) => void;
  tools: React.ReactNode;
}

/** The places under headings that nest. Everything goes by keys and by drag: choose several, clone, move, fold, rename, remove. */
export function PlaceTree({ selected, chosen, onChoose, onEdit, tools }: Props) {
  const [open, { job }] = useJob();
  const why = useContext(WhyContext);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const [find, setFind] = useState("");
  const [focused, setFocused] = useState<string | null>(null);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [from, setFrom] = useState<string | null>(null);
  const [drop, setDrop] = useState<string | null>(null);
  const tree = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => rowsOf(job.places, folded, find), [job.places, folded, find]);
  // The first screenful is there at once; the rest of a long list follows when the browser has time.
  const ready = useDeferredValue(rows.length, 40);
  const at = rows.findIndex((r) => rowKey(r) === (focused ?? selected));

  const here = useRef({ rows, chosen, selected });
  useEffect(() => {
    here.current = { rows, chosen, selected };
  });

  function focus(index: number) {
    const row = rows[Math.max(0, Math.min(index, rows.length - 1))];
    if (!row) return;
    setFocused(rowKey(row));
    tree.current?.querySelector<HTMLElement>(`[data-row="${CSS.escape(rowKey(row))}"]`)?.focus();
  }

  const idsOf = useCallback(
    (row: Row) =>
      row.kind === "place" ? [row.place.id] : job.places.filter((p) => isUnder(p.group, row.path)).map((p) => p.id),
    [job.places],
  );

  function go(index: number, extend: boolean) {
    const row = rows[Math.max(0, Math.min(index, rows.length - 1))];
    if (!row) return;
    focus(index);
    if (extend) {
      const first = rows.findIndex((r) => rowKey(r) === (from ?? selected));
      const [a, b] = [Math.min(first, index), Math.max(first, index)];
      const ids = rows.slice(a, b + 1).flatMap((r) => (r.kind === "place" ? [r.place.id] : []));
      onChoose(new Set(ids), row.kind === "place" ? row.place.id : selected);
    } else if (row.kind === "place") {
      setFrom(row.place.id);
      onChoose(new Set([row.place.id]), row.place.id);
    }
  }

  const pick = useCallback(
    (row: Row, how: { toggle: boolean; extend: boolean }) => {
      const now = here.current;
      const ids = idsOf(row);
      setFocused(rowKey(row));
      if (how.extend) {
        const first = now.rows.findIndex((r) => rowKey(r) === (from ?? now.selected));
        const last = now.rows.findIndex((r) => rowKey(r) === rowKey(row));
        const range = now.rows.slice(Math.min(first, last), Math.max(first, last) + 1);
        onChoose(new Set(range.flatMap((r) => (r.kind === "place" ? [r.place.id] : []))), ids[0]);
      } else if (how.toggle) {
        const next = new Set(now.chosen);
        const all = ids.every((id) => next.has(id));
        for (const id of ids)
          if (all) next.delete(id);
          else next.add(id);
        onChoose(next, all ? now.selected : ids[0]);
      } else {
        setFrom(ids[0] ?? null);
        onChoose(new Set(ids), ids[0]);
      }
    },
    [from, idsOf, onChoose],
  );

  const fold = useCallback((path: string, on: boolean) => {
    setFolded((was) => {
      const next = new Set(was);
      if (on) next.add(path);
      else next.delete(path);
      return next;
    });
  }, []);

  const inOrder = () => job.places.filter((p) => chosen.has(p.id));

  function remove() {
    const ids = inOrder().map((p) => p.id);
    if (ids.length) void open.tell({ type: "removePlaces", places: ids });
  }

  function clone() {
    const row = rows[at];
    if (row?.kind === "heading") {
      const places = job.places.filter((p) => isUnder(p.group, row.path));
      const taken = new Set(job.places.map((p) => p.group));
      let name = `${row.path} copy`;
      for (let n = 2; taken.has(name); n++) name = `${row.path} copy ${n}`;
      const copies = places.map((p) => ({ from: p.id, to: newId() }));
      void open
        .tell({ type: "clonePlaces", places: copies, groupWas: row.path, group: name })
        .then(() => setRenaming(name));
      return;
    }
    const copies = inOrder().map((p) => ({ from: p.id, to: newId() }));
    if (!copies.length) return;
    void open
      .tell({ type: "clonePlaces", places: copies, groupWas: null, group: null })
      .then(() => onChoose(new Set(copies.map((c) => c.to)), copies[0]!.to));
  }

  function moveTo(row: Row) {
    const moving = inOrder();
    if (!moving.length || (row.kind === "place" && chosen.has(row.place.id))) return;
    const places = moving.map((p) => ({ place: p.id, was: p.group }));
    if (row.kind === "heading")
      void open.tell({ type: "movePlaces", places, group: row.path, before: null, after: null });
    else void open.tell({ type: "movePlaces", places, group: row.place.group, before: row.place.id, after: null });
  }

  /** One step up or down past the next place that is not chosen. */
  function step(by: 1 | -1) {
    const moving = inOrder();
    if (!moving.length) return;
    const edge = job.places.indexOf(by < 0 ? moving[0]! : moving.at(-1)!);
    const beside = job.places[edge + by];
    if (!beside) return;
    const places = moving.map((p) => ({ place: p.id, was: p.group }));
    // At the edge of a heading the first step goes under the neighbour's heading, the next past it.
    const crosses = beside.group !== moving[0]!.group;
    const before = by < 0 !== crosses ? beside.id : null;
    const after = by < 0 !== crosses ? null : beside.id;
    void open.tell({ type: "movePlaces", places, group: beside.group, before, after });
  }

  function onKey(e: KeyboardEvent) {
    if (e.target instanceof HTMLInputElement) return;
    const row = rows[at];
    const ctrl = e.ctrlKey || e.metaKey;
    if (e.altKey && e.key === "ArrowUp") step(-1);
    else if (e.altKey && e.key === "ArrowDown") step(1);
    else if (e.altKey) return;
    else if (e.key === "ArrowDown") go(at + 1, e.shiftKey);
    else if (e.key === "ArrowUp") go(at - 1, e.shiftKey);
    else if (e.key === "Home") go(0, e.shiftKey);
    else if (e.key === "End") go(rows.length - 1, e.shiftKey);
    else if (e.key.toLowerCase() === "a" && ctrl) onChoose(new Set(job.places.map((p) => p.id)), selected);
    else if (ctrl) return;
    else if (e.key === " " && row) pick(row, { toggle: true, extend: false });
    else if (e.key === "ArrowRight" && row?.kind === "heading") fold(row.path, false);
    else if (e.key === "ArrowLeft" && row?.kind === "heading") fold(row.path, true);
    else if (e.key === "ArrowLeft" && row) focus(rows.slice(0, at).findLastIndex((r) => r.kind === "heading"));
    else if ((e.key === "Enter" || e.key === "F2") && row?.kind === "heading") setRenaming(row.path);
    else if (e.key === "Enter" && row?.kind === "place") onEdit(row.place.id);
    else if (e.key === "Delete") remove();
    else if (e.key.toLowerCase() === "e" && row?.kind === "place" && row.place.main) why(row.place.main.path);
    else if (e.key.toLowerCase() === "c") clone();
    else if (e.key === "Escape") onChoose(new Set(selected ? [selected] : []), selected);
    else return;
    e.preventDefault();
  }

  async function rename(path: string, name: string) {
    setRenaming(null);
    const outer = path.slice(0, path.length - (path.split(" / ").at(-1)?.length ?? 0));
    if (name.trim() && outer + name.trim() !== path)
      await open.tell({ type: "renameGroup", was: path, group: outer + name.trim() });
  }

  const current = rows[at];
  return (
    <section className={`panel ${styles.places}`} aria-label="Places">
      <header>
        <h2>Places</h2>
        <Input bare type="search" label="Find a place" placeholder="find" value={find} onType={setFind} />
        <span className="note">{job.tally.places}</span>
      </header>
      <div
        className={styles.scroll}
        ref={tree}
        role="tree"
        aria-label="Places of the job"
        aria-multiselectable="true"
        onKeyDown={onKey}
        onFocus={(e) => setFocused((e.target as HTMLElement).dataset.row ?? null)}
        onDragEnd={() => setDrop(null)}
      >
        {rows.slice(0, ready).map((row, i) => (
          <TreeRow
            key={rowKey(row)}
            row={row}
            chosen={row.kind === "place" ? chosen.has(row.place.id) : false}
            current={i === Math.max(0, at)}
            dropping={drop === rowKey(row)}
            renaming={row.kind === "heading" && renaming === row.path}
            onPick={pick}
            onFold={fold}
            onEdit={onEdit}
            onRename={rename}
            onDragOver={setDrop}
            onDrop={moveTo}
          />
        ))}
        {job.places.length > 0 && rows.length === 0 && <p className="note none">No place has that.</p>}
      </div>
      <footer>
        {chosen.size > 0 && (
          <>
            {current?.kind === "heading" ? (
              <button className="link" onClick={() => setRenaming(current.path)}>
                Rename
              </button>
            ) : (
              chosen.size === 1 &&
              selected && (
                <button className="link" onClick={() => onEdit(selected)}>
                  Change
                </button>
              )
            )}
            <button className="link" onClick={clone}>
              Clone
            </button>
            <button className="link" onClick={remove}>
              Remove
            </button>
          </>
        )}
        {tools}
      </footer>
    </section>
  );
}

interface RowProps {
  row: Row;
  chosen: boolean;
  current: boolean;
  dropping: boolean;
  renaming: boolean;
  onPick: (row: Row, how: { toggle: boolean; extend: boolean }) => void;
  onFold: (path: string, on: boolean) => void;
  onEdit: (id: string) => void;
  onRename: (path: string, name: string) => Promise<void>;
  onDragOver: (key: string) => void;
  onDrop: (row: Row) => void;
}

/** A row is drawn anew only when it changes: there may be thousands. */
const TreeRow = memo(
  function TreeRow(props: RowProps) {
    const { row, chosen, current, dropping } = props;
    const common = {
      role: "treeitem",
      "aria-level": row.level,
      "data-row": rowKey(row),
      tabIndex: current ? 0 : -1,
      style: { paddingLeft: 12 + (row.level - 1) * 10 },
      onClick: (e: React.MouseEvent) =>
        props.onPick(row, { toggle: e.ctrlKey || e.metaKey, extend: e.shiftKey && row.kind === "place" }),
      onDragOver: (e: React.DragEvent) => {
        e.preventDefault();
        props.onDragOver(rowKey(row));
      },
      onDrop: (e: React.DragEvent) => {
        e.preventDefault();
        props.onDrop(row);
      },
    };
    if (row.kind === "heading")
      return props.renaming ? (
        <Rename row={row} onRename={props.onRename} />
      ) : (
        <div
          {...common}
          className={classes(styles.group, dropping && styles.dropping)}
          aria-expanded={!row.folded}
          aria-selected={chosen}
        >
          <span
            aria-hidden="true"
            className={styles.fold}
            onClick={(e) => {
              e.stopPropagation();
              props.onFold(row.path, !row.folded);
            }}
          >
            {row.folded ? "▸" : "▾"}
          </span>
          {row.name}
          <small>{row.places}</small>
        </div>
      );
    const place = row.place;
    return (
      <div
        {...common}
        className={classes(styles.place, dropping && styles.dropping)}
        aria-selected={chosen}
        data-place={place.id}
        draggable
        onDragStart={(e) => {
          e.dataTransfer.effectAllowed = "move";
          if (!chosen) props.onPick(row, { toggle: false, extend: false });
        }}
        onDoubleClick={() => props.onEdit(place.id)}
      >
        <PlaceWords place={place} />
      </div>
    );
  },
  (a, b) =>
    a.chosen === b.chosen &&
    a.current === b.current &&
    a.dropping === b.dropping &&
    a.renaming === b.renaming &&
    a.onPick === b.onPick &&
    a.row.level === b.row.level &&
    (a.row.kind === "place" && b.row.kind === "place"
      ? a.row.place === b.row.place && a.chosen === b.chosen
      : a.row.kind === "heading" &&
        b.row.kind === "heading" &&
        a.row.path === b.row.path &&
        a.row.folded === b.row.folded &&
        a.row.places === b.row.places),
);

function PlaceWords({ place }: { place: Place }) {
  return (
    <>
      <span>
        <b>
          {place.name}
          {place.count > 1 && ` ×${place.count}`}
        </b>
        <small className={place.kind === "unmeasured" ? styles.unmeasured : undefined}>
          {place.size}
          {place.count > 1 && " each"}
          {place.finish && ` · ${place.finish}`}
        </small>
      </span>
      {place.main && (
        <span className="n">
          <FigureText figure={place.main} />
        </span>
      )}
    </>
  );
}

function Rename({ row, onRename }: { row: Row & { kind: "heading" }; onRename: RowProps["onRename"] }) {
  const [name, setName] = useState(row.name);
  return (
    <div className={styles.group} role="treeitem" aria-level={row.level} aria-selected={false}>
      <Input
        bare
        focus
        label={`New name of ${row.name}`}
        value={name}
        maxLength={120}
        onFocus={(e) => e.target.select()}
        onType={setName}
        onBlur={() => void onRename(row.path, name)}
        onKeyDown={(e) => {
          if (e.key === "Enter") void onRename(row.path, name);
          else if (e.key === "Escape") void onRename(row.path, row.name);
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      />
    </div>
  );
}
