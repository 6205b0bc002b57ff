import { Tab, Tabs } from "@mui/material";
import { memo, useCallback, useState } from "react";
import { Link } from "react-router";
import type { Work } from "../api/client";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { CellSheet } from "./CellSheet";
import { KeepInBook } from "./KeepInBook";
import { ReplaceProduct } from "./ReplaceProduct";
import { SectionSettings } from "./SectionSettings";
import { WorkSettings } from "./WorkSettings";
import styles from "./work.module.css";

export interface Selected {
  work: readonly string[];
  places: readonly string[];
}

type Tabbed = "item" | "cell";

/** Memoised: tabs measure themselves whenever they are drawn, which would lay the screen out once more for every edit. */
const SheetTabs = memo(function SheetTabs(props: {
  value: Tabbed;
  /** What the cells' tab is called; null without any. */
  cells: string | null;
  onChoose: (tab: Tabbed) => void;
}) {
  return (
    <Tabs
      value={props.value}
      onChange={(_, now: Tabbed) => props.onChoose(now)}
      variant="fullWidth"
      aria-label="Settings of"
    >
      <Tab value="item" label="Everywhere" id="tab-item" aria-controls="sheet-item" />
      {props.cells !== null && <Tab value="cell" label={props.cells} id="tab-cell" aria-controls="sheet-cell" />}
    </Tabs>
  );
});

/** Settings of the work item in focus, and of the one cell that is selected. */
export const WorkSheet = memo(function WorkSheet({ selected, itemId }: { selected: Selected; itemId: string }) {
  const [, { job, cells }] = useJob();
  const item = job.work.find((w) => w.id === itemId);
  const [last, setLast] = useState<Tabbed>("item");
  const [chosen, setChosen] = useState<{ at: string; tab: Tabbed } | null>(null);
  // Cells of one work item can be set together; of several, only each by itself.
  const places = selected.work.length === 1 ? selected.places : [];
  const at = `${selected.work[0]}/${places.length}/${places[0]}`;
  const choose = useCallback(
    (tab: Tabbed) => {
      setLast(tab);
      setChosen({ at, tab });
    },
    [at],
  );
  if (!item)
    return (
      <aside className={`panel ${styles.sheet}`} aria-label="Work item">
        <p className="note">What is selected in the grid is set here.</p>
      </aside>
    );
  const only = places.length === 1 ? job.places.find((p) => p.id === places[0]) : undefined;
  // What is excluded asks for its sentence; otherwise the sheet stays where it was.
  const usual = only && cells.get(`${item.id}/${only.id}`)?.state === "excluded" ? "cell" : last;
  const shown = places.length === 0 ? "item" : chosen?.at === at ? chosen.tab : usual;
  return (
    <aside className={`panel ${styles.sheet}`} aria-label="Work item">
      <header>
        <h2>
          {item.section}: {item.name}
        </h2>
      </header>
      <SheetTabs
        value={shown}
        cells={places.length === 0 ? null : only ? `In ${only.name}` : `In these ${places.length} places`}
        onChoose={choose}
      />
      {shown === "item" ? (
        <div role="tabpanel" id="sheet-item" aria-labelledby="tab-item">
          <ul className="rows">
            <li>
              {item.measureLabel}
              {item.quantity ? (
                <Figure figure={item.quantity} label={item.measureLabel} />
              ) : (
                <span className="note">nowhere yet</span>
              )}
            </li>
            {item.hours && (
              <li>
                Labour <Figure figure={item.hours} label={`Labour, ${item.name}`} />
              </li>
            )}
            <WorkSettings key={item.id} item={item} />
            <SectionSettings key={`s${item.id}`} item={item} />
          </ul>
          <FromTheBook key={`b${item.id}`} item={item} />
        </div>
      ) : (
        <div role="tabpanel" id="sheet-cell" aria-labelledby="tab-cell">
          <CellSheet key={`${item.id}${places.join()}`} places={places} item={item} />
        </div>
      )}
      {selected.work.length > 1 && selected.places.length > 0 && (
        <p className="note">
          Cells of several kinds of work are selected. Select within one column to set cells together.
        </p>
      )}
    </aside>
  );
});

/** The entry behind a work item: its parts, and the ways between the job and the Book. */
function FromTheBook({ item }: { item: Work }) {
  const [open, { job }] = useJob();
  const [dialog, setDialog] = useState<"keep" | "take" | "replace" | null>(null);
  const at = job.work.findIndex((w) => w.id === item.id);
  const close = () => setDialog(null);
  const move = (by: Work, after: string | null) =>
    void open.tell({ type: "moveWork", work: item.id, section: by.sectionId, after });
  return (
    <section className={styles.cellsheet}>
      <h3>{item.kind === "assembly" ? "Parts, as in its entry" : "From the Book"}</h3>
      {item.parts.map((part) => (
        <p key={part} className="note">
          {part}
        </p>
      ))}
      <p className="acts">
        <Link className="act" to={`/jobs/${job.id}/book/${item.entry}`}>
          Change its entry for this job
        </Link>
        <button className="act" onClick={() => setDialog("keep")}>
          Keep in the Book…
        </button>
        <button className="act" onClick={() => setDialog("take")}>
          Take from the Book…
        </button>
        {item.product && (
          <button className="act" onClick={() => setDialog("replace")}>
            Replace the product everywhere…
          </button>
        )}
        <button
          className="act"
          disabled={at === 0}
          onClick={() => {
            const [left, before] = [job.work[at - 1]!, job.work[at - 2]];
            move(left, before?.sectionId === left.sectionId ? before.id : null);
          }}
        >
          Move left
        </button>
        <button
          className="act"
          disabled={at === job.work.length - 1}
          onClick={() => move(job.work[at + 1]!, job.work[at + 1]!.id)}
        >
          Move right
        </button>
      </p>
      <button className={`link ${styles.warn}`} onClick={() => void open.tell({ type: "removeWork", work: item.id })}>
        Take this work out of the job
      </button>
      {(dialog === "keep" || dialog === "take") && <KeepInBook way={dialog} item={item} onClose={close} />}
      {dialog === "replace" && <ReplaceProduct from={item.product!} onClose={close} />}
    </section>
  );
}
