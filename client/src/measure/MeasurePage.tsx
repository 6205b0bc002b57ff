import { useState } from "react";
import { useSearchParams } from "react-router";
import { useJob } from "../job/JobContext";
import { MeasureList } from "./MeasureList";
import { PlaceList } from "./PlaceList";
import { TapeLine } from "./TapeLine";
import { UnfoldedRoom } from "./UnfoldedRoom";
import "./measure.css";

/** The Measure station: places, tape line, unfolded room, measures. */
export function MeasurePage() {
  const [, { job }] = useJob();
  const [search, setSearch] = useSearchParams();
  const [editingId, setEditing] = useState<string | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const selected = job.places.find((p) => p.id === search.get("place")) ?? job.places[0];
  const editing = job.places.find((p) => p.id === editingId);
  const select = (id: string) => setSearch({ place: id }, { replace: true });
  return (
    <div className="measure">
      <PlaceList selected={selected?.id} onSelect={select} onEdit={setEditing} />
      <div className="middle">
        <TapeLine
          key={editing?.id ?? "new"}
          editing={editing}
          after={selected}
          onKept={(id) => {
            select(id);
            setEditing(null);
          }}
          onBack={() => setEditing(null)}
        />
        <section className="panel drawing" aria-label="Unfolded room">
          {selected ? (
            <UnfoldedRoom place={selected} pointed={pointed} onPoint={setPointed} />
          ) : (
            <div className="empty">
              <h2>No places yet</h2>
              <p>
                Write the first off the tape in the line above: a name, length × width × height, then its doors and
                windows. It is drawn here to scale.
              </p>
            </div>
          )}
        </section>
      </div>
      <MeasureList place={selected} pointed={pointed} onPoint={setPointed} />
    </div>
  );
}
