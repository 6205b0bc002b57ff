import { Button, ToggleButton, ToggleButtonGroup } from "@mui/material";
import { useLayoutEffect, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { useJob } from "../job/JobContext";
import { AddWork } from "./AddWork";
import { ScopeGrid } from "./ScopeGrid";
import { WorkSheet } from "./WorkSheet";
import { type CellAt, type Range, cellsIn, startAt } from "./range";
import "./work.css";

/** The Work station: the scope grid, and a sheet for what is selected in it. */
export function WorkPage() {
  const [open, { job, cells }] = useJob();
  const [search] = useSearchParams();
  const [shows, setShows] = useState<"hours" | "quantity">("hours");
  const [adding, setAdding] = useState(false);
  const [range, setRange] = useState<Range>(() =>
    startAt(
      Math.max(
        0,
        job.work.findIndex((w) => w.id === search.get("item")),
      ),
    ),
  );
  const chosen = useMemo(() => cellsIn(range, job), [range, job]);

  // Before the first paint: whoever sees the grid may type at once.
  useLayoutEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName);
      if (e.key.toLowerCase() !== "a" || e.ctrlKey || e.metaKey || e.altKey || typing) return;
      e.preventDefault();
      setAdding(true);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, []);

  const fill = (state: "included" | "excluded" | null, at: CellAt[] = chosen) =>
    void open.tell({
      type: "fillCells",
      state,
      cells: at.map(({ work, place }) => ({ work, place, was: cells.get(`${work}/${place}`)?.state ?? null })),
    });

  return (
    <div className="work">
      <section className="panel scope" aria-label="Scope">
        <header>
          <h2>Scope</h2>
          <ToggleButtonGroup
            exclusive
            value={shows}
            onChange={(_, value) => value && setShows(value)}
            aria-label="Cells show"
          >
            <ToggleButton value="hours">Hours</ToggleButton>
            <ToggleButton value="quantity">Quantities</ToggleButton>
          </ToggleButtonGroup>
          {chosen.length > 0 && (
            <>
              <span className="note">{chosen.length === 1 ? "1 cell" : `${chosen.length} cells`}</span>
              <button className="act" onClick={() => fill("included")}>
                Include <span className="kbd">I</span>
              </button>
              <button className="act" onClick={() => fill("excluded")}>
                Leave out <span className="kbd">O</span>
              </button>
              <button className="act" onClick={() => fill(null)}>
                None here <span className="kbd">Del</span>
              </button>
            </>
          )}
          <Button size="small" variant="contained" sx={{ ml: "auto" }} onClick={() => setAdding(true)}>
            Add work
          </Button>
        </header>
        {job.work.length > 0 && job.places.length > 0 ? (
          <ScopeGrid shows={shows} range={range} onRange={setRange} onFill={fill} />
        ) : (
          <div className="empty">
            <h2>{job.places.length === 0 ? "Measure a place first" : "No work yet"}</h2>
            <p>
              {job.places.length === 0
                ? "Places stand down the side of this grid. Measure the first with a tape line on the Measure station; work from the Book can be added now."
                : "Add work from the Book; it becomes a column here. Then include it in the places where it is to be done."}
            </p>
            <Button variant="outlined" onClick={() => setAdding(true)}>
              Add work from the Book
            </Button>
          </div>
        )}
        <footer className="key" aria-label="Signs in the grid">
          <span>
            <i className="cell included">4.2</i> included
          </span>
          <span>
            <i className="cell excluded">out</i> excluded, stated
          </span>
          <span>
            <i className="cell none">·</i> none here
          </span>
          {job.pricing.setUp && <span>set-up and travel come on top, in the tally</span>}
        </footer>
      </section>
      <WorkSheet chosen={chosen} item={job.work[range.toItem]} />
      {adding && <AddWork onClose={() => setAdding(false)} />}
    </div>
  );
}
