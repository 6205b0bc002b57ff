import { Button, ToggleButton, ToggleButtonGroup } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { memo, useCallback, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { api } from "../api/client";
import { type Shows, inMoney, moneyByCell } from "../figure/cellFigure";
import { LaterContext, useJob } from "../job/JobContext";
import { AddWork } from "./AddWork";
import { Checks, type Finding, useChecks } from "./Checks";
import { GridKey } from "./GridKey";
import { JobConditions } from "./JobConditions";
import { LineList } from "./LineList";
import { RefreshPrices } from "./RefreshPrices";
import { ReplaceProduct } from "./ReplaceProduct";
import { ScopeGrid } from "./ScopeGrid";
import { ScopeTools } from "./ScopeTools";
import { WorkSheet } from "./WorkSheet";
import { type Filter, layoutKey, layoutOf, noFilter } from "./layout";
import { type Range, boxOf, idsIn } from "./range";
import { useGridEdits } from "./useGridEdits";
import "./work.css";

type View = "grid" | "place" | "section";
type Dialog = "add" | "conditions" | "refresh" | "replace" | null;

/** The sheet for what is selected, below the checks while they are walked. */
const Side = memo(function Side(props: {
  only: string | null;
  count: number;
  itemId: string;
  findings: readonly Finding[] | undefined;
  finding: string | null;
  goTo: (finding: Finding) => void;
  setChecking: (checking: boolean) => void;
}) {
  const [, { job }] = useJob();
  const [work, place] = props.only?.split("/") ?? [];
  return (
    <div className="side">
      {props.findings && (
        <Checks
          findings={props.findings}
          at={props.finding}
          onGo={props.goTo}
          onClose={() => props.setChecking(false)}
        />
      )}
      <WorkSheet
        only={work && place ? { work, place } : null}
        count={props.count}
        item={job.work.find((w) => w.id === props.itemId)}
      />
    </div>
  );
});

const noIds: ReadonlySet<string> = new Set();

/** The Work station: the scope grid, or the same cells as a list, and a sheet for what is selected. */
export function WorkPage() {
  const [, state] = useJob();
  const { job, cells, answers } = state;
  const [search] = useSearchParams();
  const [view, setView] = useState<View>("grid");
  const [shows, setShows] = useState<Shows>("hours");
  const [dialog, setDialog] = useState<Dialog>(null);
  const [filter, setFilter] = useState<Filter>(noFilter);
  const [groups, setGroups] = useState(noIds);
  const [sections, setSections] = useState(noIds);
  const [frozen, setFrozen] = useState(0);
  const [said, setSaid] = useState("");
  const [finding, setFinding] = useState<string | null>(null);
  const [checking, setChecking] = useState(false);
  const page = useRef<HTMLDivElement>(null);
  const [chosen, setRange] = useState<Range | null>(null);
  const range = useMemo(() => {
    const work = job.work.find((w) => w.id === search.get("item")) ?? job.work[0];
    const at = work && job.places[0] && { work: work.id, place: job.places[0].id };
    return chosen ?? (at ? { from: at, to: at } : null);
  }, [chosen, job.work, job.places, search]);
  const key = layoutKey(job);
  const inCells = filter.only === "all" ? null : cells;
  const layout = useMemo(
    () => layoutOf(job, cells, filter, groups, sections),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the job as far as it is laid out, the cells as far as they are filtered by
    [key, inCells, filter, groups, sections],
  );
  const works = useMemo(() => new Map(job.work.map((w) => [w.id, w] as const)), [job.work]);
  const places = useMemo(() => new Map(job.places.map((p) => [p.id, p] as const)), [job.places]);
  const toSheet = useCallback(
    () => page.current?.querySelector<HTMLElement>(".sheet [role=tab][aria-selected=true]")?.focus(),
    [],
  );
  const box = useMemo(() => boxOf(range, layout), [range, layout]);
  const selected = useMemo(() => idsIn(box, layout), [box, layout]);
  const count = selected.work.length * selected.places.length;
  const { data: money } = useQuery({
    queryKey: ["money", job.id, answers],
    queryFn: async () => (await api.GET("/api/jobs/{id}/cells/money", { params: { path: { id: job.id } } })).data!,
    enabled: inMoney(shows),
    placeholderData: (kept) => kept,
  });
  const byCell = useMemo(() => moneyByCell(money), [money]);
  const byPlace = useMemo(() => new Map((money?.places ?? []).map((p) => [p.place, p] as const)), [money]);
  const byWork = useMemo(() => new Map((money?.work ?? []).map((w) => [w.work, w] as const)), [money]);
  const edits = useGridEdits(layout, box, shows, byCell, setSaid);
  const findings = useChecks();

  const fold = useCallback((what: { group?: string; section?: string }) => {
    const other = (set: ReadonlySet<string>, name: string) => {
      const now = new Set(set);
      if (!now.delete(name)) now.add(name);
      return now;
    };
    if (what.group !== undefined) setGroups((set) => other(set, what.group!));
    if (what.section !== undefined) setSections((set) => other(set, what.section!));
  }, []);

  const focusCell = useCallback((at: { work: string; place: string }) => {
    const find = () => page.current?.querySelector<HTMLElement>(`[data-cell="${at.work}/${at.place}"]`);
    // It may only be drawn with the next frame.
    if (find()) find()!.focus();
    else requestAnimationFrame(() => find()?.focus());
  }, []);

  /** Selects the cell that a check is about, with everything unfolded and unfiltered that would hide it. */
  const goTo = useCallback(
    (found: Finding) => {
      setChecking(true);
      setFinding(found.key);
      const here = found.place ?? range?.to.place ?? job.places[0]?.id;
      const work =
        found.work ?? (found.place && job.work.find((w) => cells.has(`${w.id}/${found.place}`))?.id) ?? job.work[0]?.id;
      if (!here || !work) return;
      const group = job.places.find((p) => p.id === here)?.group;
      setFilter(noFilter);
      if (group) setGroups((set) => new Set([...set].filter((g) => g !== group)));
      const section = job.work.find((w) => w.id === work)?.section;
      setSections((set) => new Set([...set].filter((s) => s !== section)));
      setRange({ from: { work, place: here }, to: { work, place: here } });
      focusCell({ work, place: here });
    },
    [cells, focusCell, job, range],
  );

  const nextCheck = useCallback(
    (step: 1 | -1) => {
      const standing = findings?.filter((f) => f.reason === "") ?? [];
      setChecking(true);
      if (standing.length === 0) return setFinding(null);
      const at = standing.findIndex((f) => f.key === finding);
      goTo(standing[(at + step + standing.length) % standing.length] ?? standing[0]!);
    },
    [finding, findings, goTo],
  );

  // Before the first paint: whoever sees the grid may type at once.
  useLayoutEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement &&
        (/^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName) || e.target.closest('[role="dialog"]'));
      const key = e.key.toLowerCase();
      if ((e.ctrlKey || e.metaKey) && key === "f")
        page.current?.querySelector<HTMLInputElement>('input[aria-label="Filter places"]')?.focus();
      else if (e.ctrlKey || e.metaKey || e.altKey || typing) return;
      else if (key === "a") setDialog("add");
      else if (key === "n") nextCheck(e.shiftKey ? -1 : 1);
      else return;
      e.preventDefault();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [nextCheck]);

  const searched = search.get("item");
  useEffect(() => {
    if (searched && range) focusCell(range.to);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, for the item that was asked for
  }, [searched]);

  const itemId = layout.work[box.column]?.id ?? "";
  const item = works.get(itemId);
  const only = range && count === 1 ? `${selected.work[0]}/${selected.places[0]}` : null;
  const side = useMemo(
    () => ({ only, count, itemId, findings: checking ? findings : undefined, finding, goTo, setChecking }),
    [only, count, itemId, checking, findings, finding, goTo],
  );
  return (
    <div className="work" ref={page}>
      <section className="panel scope" aria-label="Scope">
        <header>
          <h2>Scope</h2>
          <ToggleButtonGroup
            exclusive
            value={view}
            onChange={(_, v: View | null) => v && setView(v)}
            aria-label="Shown as"
          >
            <ToggleButton value="grid">Grid</ToggleButton>
            <ToggleButton value="place">By place</ToggleButton>
            <ToggleButton value="section">By section</ToggleButton>
          </ToggleButtonGroup>
          <ToggleButtonGroup
            exclusive
            value={shows}
            onChange={(_, v: Shows | null) => v && setShows(v)}
            aria-label="Cells show"
          >
            <ToggleButton value="hours">Hours</ToggleButton>
            <ToggleButton value="quantity">Quantities</ToggleButton>
            <ToggleButton value="cost">Cost</ToggleButton>
            <ToggleButton value="price">Price</ToggleButton>
          </ToggleButtonGroup>
          <button className="act" style={{ marginLeft: "auto" }} onClick={() => nextCheck(1)}>
            {findings?.filter((f) => f.reason === "").length ?? "…"} to check <span className="kbd">N</span>
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
          onFind={() => range && focusCell({ work: item?.id ?? "", place: layout.places[box.row]?.id ?? "" })}
        />
        {job.work.length === 0 || job.places.length === 0 ? (
          <div className="empty">
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
          <div className="empty">
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
            money={byCell}
            placeMoney={byPlace}
            workMoney={byWork}
            frozen={Math.min(frozen, layout.columns.length)}
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
            money={byCell}
            range={range}
            onRange={setRange}
            edits={edits}
          />
        )}
        <GridKey said={said} />
      </section>
      <LaterContext value={useDeferredValue(state)}>
        <Side {...useDeferredValue(side)} />
      </LaterContext>
      {dialog === "add" && <AddWork places={selected.places} onClose={() => setDialog(null)} />}
      {dialog === "conditions" && <JobConditions onClose={() => setDialog(null)} />}
      {dialog === "refresh" && <RefreshPrices onClose={() => setDialog(null)} />}
      {dialog === "replace" && <ReplaceProduct onClose={() => setDialog(null)} />}
    </div>
  );
}
