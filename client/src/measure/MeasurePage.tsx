import { Menu, MenuItem } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useJob } from "../job/JobContext";
import { BringInPlaces } from "./BringInPlaces";
import { ManyPlaces } from "./ManyPlaces";
import { MeasureList } from "./MeasureList";
import { Legend, OpenWalk, PlaceDrawing } from "./PlaceDrawing";
import { PlaceTree } from "./PlaceTree";
import { type Reading, TapeLine } from "./TapeLine";
import { UsualPlacesDialog } from "./UsualPlacesDialog";
import styles from "./measure.module.css";
import { askJob } from "../api/jobQueries";

/** The Measure station: places, tape line, unfolded room, measures. */
export function MeasurePage() {
  const [, { job }] = useJob();
  const [search, setSearch] = useSearchParams();
  const [editingId, setEditing] = useState<string | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const [reading, setReading] = useState<Reading | null>(null);
  const [many, setMany] = useState<ReadonlySet<string>>(new Set());
  const [dialog, setDialog] = useState<"usual" | "table" | null>(null);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const bringIn = (what: "usual" | "table") => {
    setMenu(null);
    setDialog(what);
  };
  const selected = job.places.find((p) => p.id === search.get("place")) ?? job.places[0];
  const editing = job.places.find((p) => p.id === editingId);
  const chosen = many.size > 1 ? new Set([...many].filter((id) => job.places.some((p) => p.id === id))) : null;
  const select = useCallback((id: string) => setSearch({ place: id }, { replace: true }), [setSearch]);
  const choose = useCallback(
    (ids: ReadonlySet<string>, primary: string | undefined) => {
      setMany(ids);
      if (primary) select(primary);
    },
    [select],
  );
  const { data: sheet } = useQuery({
    ...askJob.place(job, selected?.id ?? ""),
    enabled: selected !== undefined,
    placeholderData: (kept) => kept,
    staleTime: Infinity,
  });
  const shown = sheet && selected && sheet.id === selected.id ? sheet : undefined;
  const preview = reading?.drawing ?? null;
  const walk = reading?.refusal?.walk ?? null;

  function kept(id: string) {
    setReading(null);
    // After a place that was only listed comes the next one to be measured.
    const at = job.places.findIndex((p) => p.id === id);
    const next =
      editing?.kind === "unmeasured" ? job.places.slice(at + 1).find((p) => p.kind === "unmeasured") : undefined;
    select(next?.id ?? id);
    setMany(new Set());
    setEditing(next?.id ?? null);
  }

  return (
    <div className={styles.measure}>
      <PlaceTree
        selected={selected?.id}
        chosen={chosen ?? new Set(selected ? [selected.id] : [])}
        onChoose={choose}
        onEdit={setEditing}
        tools={
          <>
            <button
              className="link"
              aria-haspopup="menu"
              aria-expanded={menu !== null}
              onClick={(e) => setMenu(e.currentTarget)}
            >
              Bring in ▾
            </button>
            <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
              <MenuItem onClick={() => bringIn("usual")}>Usual places</MenuItem>
              <MenuItem onClick={() => bringIn("table")}>A table of places</MenuItem>
              <MenuItem component={Link} to={`/jobs/${job.id}/measure/schedule`}>
                A schedule of quantities, to compare
              </MenuItem>
            </Menu>
          </>
        }
      />
      <div className={styles.middle}>
        <TapeLine
          key={editing?.id ?? "new"}
          editing={editing}
          after={selected}
          onReading={setReading}
          onKept={kept}
          onBack={() => {
            setEditing(null);
            setReading(null);
          }}
        />
        {chosen && <ManyPlaces chosen={chosen} />}
        <section className={`panel ${styles.drawing}`} aria-label="Unfolded room">
          {walk ? (
            <>
              <header>
                <h2>{reading?.name || "These walls"} do not close</h2>
                <span className="note">not kept</span>
              </header>
              <OpenWalk walk={walk} />
            </>
          ) : preview && reading ? (
            <>
              <header>
                <h2>{reading.name}</h2>
                <span className="note">as typed, not kept yet{preview.note && `; ${preview.note}`}</span>
              </header>
              <PlaceDrawing
                name={reading.name}
                drawing={preview}
                measures={[]}
                pointed={null}
                onPoint={() => undefined}
              />
            </>
          ) : selected ? (
            <>
              <header>
                <h2>
                  {selected.name}
                  {selected.count > 1 && ` ×${selected.count}`}
                </h2>
                <span className="note">
                  {[["unmeasured", "items"].includes(selected.kind) ? "" : "to scale", shown?.drawing.note ?? ""]
                    .filter(Boolean)
                    .join("; ")}
                </span>
                <button className={`plain ${styles.print}`} onClick={() => print()}>
                  Print
                </button>
              </header>
              {selected.kind === "unmeasured" ? (
                <div className={styles.empty}>
                  <h2>Still to be measured</h2>
                  <p>
                    Choose Change (or press Enter in the list) and write its size after its name. Keeping it goes on to
                    the next place that is not measured yet.
                  </p>
                </div>
              ) : (
                shown && (
                  <>
                    <PlaceDrawing
                      name={selected.name}
                      drawing={shown.drawing}
                      measures={[...shown.measures, ...shown.extras]}
                      pointed={pointed}
                      onPoint={setPointed}
                    />
                    <Legend drawing={shown.drawing} measures={shown.measures} pointed={pointed} onPoint={setPointed} />
                  </>
                )
              )}
            </>
          ) : (
            <div className={styles.empty}>
              <h2>No places yet</h2>
              <p>
                Write the first off the tape in the line above: a name, length × width × height, then its doors and
                windows. It is drawn here to scale. Or begin with a list:
              </p>
              <p>
                <button className="link" onClick={() => setDialog("usual")}>
                  Pick from the usual places
                </button>{" "}
                or{" "}
                <button className="link" onClick={() => setDialog("table")}>
                  bring in a table
                </button>
              </p>
            </div>
          )}
        </section>
      </div>
      <MeasureList place={selected} sheet={shown} pointed={pointed} onPoint={setPointed} />
      {dialog === "usual" && <UsualPlacesDialog group={selected?.group ?? ""} onClose={() => setDialog(null)} />}
      {dialog === "table" && <BringInPlaces onClose={() => setDialog(null)} />}
    </div>
  );
}
