import { useQueryClient } from "@tanstack/react-query";
import type { Place } from "../api/client";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";

interface Props {
  place: Place | undefined;
  pointed: string | null;
  onPoint: (measure: string | null) => void;
}

/** The measures of the selected place; pointing at one shows on the drawing what it counts. */
export function MeasureList({ place, pointed, onPoint }: Props) {
  const [open, { job }] = useJob();
  const queries = useQueryClient();
  const rule = job.rules.find((r) => r.name === job.deduct)!;
  return (
    <section className="panel measures" aria-label="Measures">
      <header>
        <h2>Measures</h2>
        <span className="note">{place && place.count > 1 ? "of one" : ""}</span>
      </header>
      <ul className="rows">
        {place?.measures.map((m) => (
          <li
            key={m.name}
            className={pointed === m.name ? "pointed" : undefined}
            onPointerEnter={() => onPoint(m.name)}
            onPointerLeave={() => onPoint(null)}
            onFocus={() => onPoint(m.name)}
            onBlur={() => onPoint(null)}
          >
            {m.label}
            <Figure figure={m.figure} label={m.label} />
          </li>
        ))}
      </ul>
      <label className="rule">
        <span className="note">Deduction rule of this job</span>
        <select
          value={job.deduct}
          onChange={(e) => {
            void open.tell({ type: "setDeduction", was: job.deduct, rule: e.target.value });
            void queries.invalidateQueries({ queryKey: ["drawing"] });
          }}
        >
          {job.rules.map((r) => (
            <option key={r.name} value={r.name}>
              {r.label}
            </option>
          ))}
        </select>
        {rule.source && <span className="note">{rule.source}</span>}
      </label>
    </section>
  );
}
