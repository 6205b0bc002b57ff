import { Fragment, useRef } from "react";
import { useJob } from "../job/JobContext";

interface Props {
  selected: string | undefined;
  onSelect: (id: string) => void;
  onEdit: (id: string) => void;
}

/** The places under their headings; arrows move, Enter changes, Delete removes. */
export function PlaceList({ selected, onSelect, onEdit }: Props) {
  const [open, { job }] = useJob();
  const list = useRef<HTMLDivElement>(null);

  function go(index: number) {
    const place = job.places[Math.max(0, Math.min(index, job.places.length - 1))];
    if (!place) return;
    onSelect(place.id);
    list.current?.querySelector<HTMLElement>(`[data-place="${place.id}"]`)?.focus();
  }

  return (
    <section className="panel places" aria-label="Places">
      <header>
        <h2>Places</h2>
        <span className="note">{job.tally.places}</span>
      </header>
      <div className="scroll" ref={list} role="listbox" aria-label="Places of the job">
        {job.places.map((place, i) => (
          <Fragment key={place.id}>
            {place.group && place.group !== job.places[i - 1]?.group && (
              <div className="group" role="presentation">
                {place.group}
              </div>
            )}
            <div
              role="option"
              aria-selected={place.id === selected}
              tabIndex={place.id === selected ? 0 : -1}
              data-place={place.id}
              className="place"
              onClick={() => onSelect(place.id)}
              onDoubleClick={() => onEdit(place.id)}
              onKeyDown={(e) => {
                if (e.key === "ArrowDown") go(i + 1);
                else if (e.key === "ArrowUp") go(i - 1);
                else if (e.key === "Home") go(0);
                else if (e.key === "End") go(job.places.length - 1);
                else if (e.key === "Enter") onEdit(place.id);
                else if (e.key === "Delete") void open.tell({ type: "removePlace", place: place.id });
                else return;
                e.preventDefault();
              }}
            >
              <span>
                <b>
                  {place.name}
                  {place.count > 1 && ` ×${place.count}`}
                </b>
                <small>
                  {place.size}
                  {place.count > 1 && " each"}
                </small>
              </span>
              <span className="n">
                {place.floor.shown} <i>{place.floor.unit}</i>
              </span>
            </div>
          </Fragment>
        ))}
      </div>
      {selected && (
        <footer>
          <button className="link" onClick={() => onEdit(selected)}>
            Change
          </button>
          <button className="link" onClick={() => void open.tell({ type: "removePlace", place: selected })}>
            Remove
          </button>
        </footer>
      )}
    </section>
  );
}
