import { Button } from "@mui/material";
import { memo, useCallback, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useLocation, useSearchParams } from "react-router";
import type { Shows } from "../figure/cellFigure";
import { toggled } from "../controls/toggled";
import { LaterContext, useJob } from "../job/JobContext";
import { useLater } from "../job/useLater";
import { useKept } from "../job/useKept";
import { AddWork } from "./AddWork";
import { Checks, useWalk } from "./Checks";
import { Choose } from "./Choose";
import { GridKey } from "./GridKey";
import { JobConditions } from "./JobConditions";
import { LineList } from "./LineList";
import { RefreshPrices } from "./RefreshPrices";
import { ReplaceProduct } from "./ReplaceProduct";
import { type Asked, ScopeGrid } from "./ScopeGrid";
import { ScopeTools } from "./ScopeTools";
import { type Selected, WorkSheet } from "./WorkSheet";
import { type Filter, layoutKey, layoutOf, noFilter } from "./layout";
import { type CellAt, type Range, boxOf, idsIn } from "./range";
import { useCellMoney } from "./useCellMoney";
import { useGridEdits } from "./useGridEdits";
import styles from "./work.module.css";

const views = { grid: "Grid", place: "By place", section: "By section" };
const showable = { hours: "Hours", quantity: "Quantities", cost: "Cost", price: "Price" };

type View = keyof typeof views;
type Dialog = "add" | "conditions" | "refresh" | "replace" | null;

/** The sheet for what is selected, below the checks while they are walked. */
const Side = memo(function Side(props: {
  selected: Selected;
  itemId: string;
  walk: ReturnType<typeof useWalk>;
  /** Whether something else is selected by now: what is typed in a sheet that is about to go would be lost. */
  behind: boolean;
}) {
  return (
    <div className={styles.side}>
      {props.walk.on && <Checks walk={props.walk} />}
      <div className={styles.for} inert={props.behind} aria-disabled={props.behind || undefined}>
        <WorkSheet selected={props.selected} itemId={props.itemId} />
      </div>
    </div>
  );
});

const noIds: ReadonlySet<string> = new Set();

/** The Work station: the scope grid, or the same cells as a list, and a sheet for what is selected. */
export function WorkPage() {
  const [, state] = useJob();
  const { job, cells } = state;
  const [search] = useSearchParams();
  const [view, setView] = useKept<View>(job.id, "work/view", "grid");
  const [shows, setShows] = useKept<Shows>(job.id, "work/shows", "hours");
  const [dialog, setDialog] = useState<Dialog>(null);
  const [filter, setFilter] = useState<Filter>(noFilter);
  const [groups, setGroups] = useState(noIds);
  const [sections, setSections] = useState(noIds);
  const [frozen, setFrozen] = useKept(job.id, "work/frozen", 0);
  const [said, setSaid] = useState("");
  const page = useRef<HTMLDivElement>(null);
  const [chosen, setRange] = useState<Range | null>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const range = useMemo(() => {
    const at = job.work[0] && job.places[0] && { work: job.work[0].id, place: job.places[0].id };
    return chosen ?? (at ? { from: at, to: at } : null);
  }, [chosen, job.work, job.places]);
  // A link to a work item selects it, each time it is followed.
  const { key: visit } = useLocation();
  const [visited, setVisited] = useState("");
  if (visit !== visited) {
    setVisited(visit);
    const work = job.work.find((w) => w.id === search.get("item"));
    const at = work && range && { work: work.id, place: range.to.place };
    if (at) {
      setRange({ from: at, to: at });
      setAsked({ at, focus: true });
    }
  }
  const key = layoutKey(job);
  const inCells = filter.only === "all" ? null : cells;
  const layout = useMemo(
    () => layoutOf(job, cells, filter, groups, sections),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the job as far as it is laid out, the cells as far as they are filtered by
    [key, inCells, filter, groups, sections],
  );
  const works = useMemo(() => new Map(job.work.map((w) => [w.id, w] as const)), [job.work]);
  const places = useMemo(() => new Map(job.places.map((p) => [p.id, p] as const)), [job.places]);
  const box = useMemo(() => boxOf(range, layout), [range, layout]);
  const selected = useMemo(() => idsIn(box, layout), [box, layout]);
  const count = selected.work.length * selected.places.length;
  const money = useCellMoney(shows);
  const edits = useGridEdits(layout, box, shows, money.byCell, setSaid);

  const toView = useCallback(
    (now: View) => {
      // What was asked for is there; another view does not take the keyboard to it again.
      setAsked(null);
      setView(now);
    },
    [setView],
  );

  const fold = useCallback((what: { group?: string; section?: string }) => {
    if (what.group !== undefined) setGroups((set) => toggled(set, what.group!));
    if (what.section !== undefined) setSections((set) => toggled(set, what.section!));
  }, []);

  /** Selects a cell and brings it into view, with everything unfolded and unfiltered that would hide it. */
  const show = useCallback(
    (at: CellAt, focus: boolean) => {
      if (!layout.rowOf.has(at.place) || !layout.columnOf.has(at.work)) {
        const [group, section] = [places.get(at.place)?.group, works.get(at.work)?.section];
        setFilter(noFilter);
        setGroups((set) => new Set([...set].filter((g) => g !== group)));
        setSections((set) => new Set([...set].filter((s) => s !== section)));
      }
      setRange({ from: at, to: at });
      setAsked({ at, focus });
    },
    [layout, places, works],
  );

  const walk = useWalk(range?.to ?? null, show);
  const { next } = walk;

  // Before the first paint: whoever sees the grid may type at once.
  useLayoutEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement &&
        (/^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName) || e.target.closest('[role="dialog"]'));
      const key = e.key.toLowerCase();
      if ((e.ctrlKey || e.metaKey) && key === "f")
        page.current?.querySelector<HTMLInputElement>("[role=search] input")?.focus();
      else if (e.ctrlKey || e.metaKey || e.altKey || typing) return;
      else if (key === "a") setDialog("add");
      else if (key === "n") next(e.shiftKey ? -1 : 1);
      else return;
      e.preventDefault();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [next]);

  const here = useMemo(() => {
    const [work, place] = [layout.work[box.column], layout.places[box.row]];
    return work && place ? { work: work.id, place: place.id } : null;
  }, [box, layout]);
  const itemId = layout.work[box.column]?.id ?? "";
  const item = works.get(itemId);
  const side = useMemo(() => ({ selected, itemId, walk }), [selected, itemId, walk]);
  const [sideLater, catchUp] = useLater(side);
  const [stateLater] = useLater(state);
  const toSheet = useCallback(() => {
    catchUp();
    page.current?.querySelector<HTMLElement>("[role=tab][aria-selected=true]")?.focus();
  }, [catchUp]);
  return (
    <div className={styles.work} ref={page}>
      <section className={`panel ${styles.scope}`} aria-label="Scope">
        <header>
          <h2>Scope</h2>
          <Choose label="Shown as" value={view} of={views} onChoose={toView} />
          <Choose label="Cells show" value={shows} of={showable} onChoose={setShows} />
          <button className="act" style={{ marginLeft: "auto" }} onClick={() => next(1)}>
            {walk.standing?.length ?? "…"} to check <span className="kbd">N</span>
          </button>
          <Button size="small" variant="contained" onClick={() => setDialog("add")}>
            Add work
          </Button>
        </header>
        <ScopeTools
          filter={filter}
          onFilter={setFilter}
          count={range ? count : 0}
          edits={edits}
          frozen={frozen}
          column={item ? (layout.columnOf.get(item.id) ?? -1) : -1}
          onFreeze={setFrozen}
          onDialog={setDialog}
          folded={groups.size + sections.size}
          onUnfold={() => {
            setGroups(noIds);
            setSections(noIds);
          }}
          at={here}
          onGo={show}
        />
        {job.work.length === 0 || job.places.length === 0 ? (
          <div className={styles.empty}>
            <h2>{job.places.length === 0 ? "Measure a place first" : "No work yet"}</h2>
            <p>
              {job.places.length === 0
                ? "Places stand down the side of this grid. Measure the first with a tape line on the Measure station; work from the Book can be added now."
                : "Add work from the Book; it becomes a column here. Then include it in the places where it is to be done."}
            </p>
            <Button variant="outlined" onClick={() => setDialog("add")}>
              Add work from the Book
            </Button>
          </div>
        ) : layout.places.length === 0 || layout.columns.length === 0 ? (
          <div className={styles.empty}>
            <h2>Nothing has that</h2>
            <p>No place or work fits the filter.</p>
            <Button variant="outlined" onClick={() => setFilter(noFilter)}>
              Show everything
            </Button>
          </div>
        ) : view === "grid" ? (
          <ScopeGrid
            layout={layout}
            shows={shows}
            money={money.byCell}
            placeMoney={money.byPlace}
            workMoney={money.byWork}
            frozen={Math.min(frozen, layout.columns.length)}
            asked={asked}
            range={range}
            box={box}
            onRange={setRange}
            edits={edits}
            onFold={fold}
            onSheet={toSheet}
            cells={cells}
            works={works}
            places={places}
            tally={job.tally}
          />
        ) : (
          <LineList
            by={view}
            layout={layout}
            shows={shows}
            money={money.byCell}
            asked={asked}
            range={range}
            onRange={setRange}
            edits={edits}
          />
        )}
        <GridKey said={said} />
      </section>
      <LaterContext value={stateLater}>
        <Side {...sideLater} behind={sideLater.selected !== selected || sideLater.itemId !== itemId} />
      </LaterContext>
      {dialog === "add" && <AddWork places={selected.places} onClose={() => setDialog(null)} />}
      {dialog === "conditions" && <JobConditions onClose={() => setDialog(null)} />}
      {dialog === "refresh" && <RefreshPrices onClose={() => setDialog(null)} />}
      {dialog === "replace" && <ReplaceProduct onClose={() => setDialog(null)} />}
    </div>
  );
}
