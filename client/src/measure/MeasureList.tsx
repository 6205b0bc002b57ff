import { FigureText } from "../figure/FigureText";
import { useState } from "react";
import type { Place, Schemas } from "../api/client";
import { Field } from "../controls/Field";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { DeductionDialog } from "./DeductionDialog";
import { MeasuredTotals } from "./MeasuredTotals";
import { TypeMeasure } from "./TypeMeasure";
import styles from "./measure.module.css";
import { classes } from "../controls/classes";

type Measure = Schemas["MeasureView"];

interface Props {
  place: Place | undefined;
  sheet: Schemas["PlaceSheetView"] | undefined;
  pointed: string | null;
  onPoint: (measure: string | null) => void;
}

/** The measures of the selected place; pointing at one shows on the drawing what it counts. */
export function MeasureList({ place, sheet, pointed, onPoint }: Props) {
  const [open, { job }] = useJob();
  const [rules, setRules] = useState(false);
  const [typing, setTyping] = useState<string | null>(null);
  const [whole, setWhole] = useState(false);
  if (!place) return <section className={`panel ${styles.measures}`} aria-label="Measures" />;
  const isNet = (m: Measure) => m.name === "netWallArea" || m.name === "netFaceArea";

  const row = (m: Measure, own: boolean) => (
    <li
      key={m.name}
      className={classes(pointed === m.name && styles.pointed, m.typed && styles.typed)}
      onPointerEnter={() => onPoint(m.name)}
      onPointerLeave={() => onPoint(null)}
      onFocus={() => onPoint(m.name)}
      onBlur={() => onPoint(null)}
    >
      <span>
        {m.label}
        {isNet(m) && !m.typed && <small>gross less deducted, {job.rule.label}</small>}
        {m.typed && (
          <small>
            {own ? m.typed.text : `typed: ${m.typed.text}`}{" "}
            <button
              className="link"
              onClick={() =>
                void open.tell({
                  type: "setMeasure",
                  place: place.id,
                  name: own ? m.label : m.name,
                  was: m.typed,
                  now: null,
                })
              }
            >
              {own ? "Take out" : <>Back to {m.derived && <FigureText figure={m.derived} />}</>}
            </button>
          </small>
        )}
      </span>
      <Figure figure={m.figure} label={m.label} />
    </li>
  );

  return (
    <section className={`panel ${styles.measures}`} aria-label="Measures">
      <header>
        <h2>Measures</h2>
        <button className="act" aria-pressed={whole} onClick={() => setWhole(!whole)}>
          Whole job
        </button>
        <span className="note" title={whole ? undefined : place.name}>
          {whole ? "all places" : place.name}
          {!whole && place.count > 1 && ", of one"}
        </span>
      </header>
      {whole && <MeasuredTotals />}
      <div className={styles.scroll} tabIndex={0} role="group" aria-label={`Figures of ${place.name}`} hidden={whole}>
        <ul className="rows">
          {sheet?.measures.map((m) => row(m, false))}
          {sheet?.extras.map((m) => row(m, m.typed !== null))}
        </ul>
        {sheet && sheet.leadsIn.length > 0 && (
          <p className="note pad">Openings lead in from {sheet.leadsIn.join(", ")}.</p>
        )}
        {sheet && (
          <div className="pad" key={place.id}>
            <Field
              label="Finish or substrate"
              value={sheet.finish}
              onKeep={(text) =>
                open.send({
                  type: "setPlaces",
                  field: "finish",
                  at: [{ place: place.id, was: sheet.finish, now: text }],
                } as never)
              }
            />
            <Field
              label="Notes"
              rows={2}
              value={sheet.notes}
              onKeep={(text) =>
                open.send({
                  type: "setPlaces",
                  field: "notes",
                  at: [{ place: place.id, was: sheet.notes, now: text }],
                } as never)
              }
            />
          </div>
        )}
      </div>
      {place.kind !== "unmeasured" && !whole && (
        <footer>
          {typing === place.id && (
            <TypeMeasure
              key={place.id}
              place={place}
              measures={sheet?.measures ?? []}
              onClose={() => setTyping(null)}
            />
          )}
          <button className="link" onClick={() => setRules(true)}>
            Change the deduction rule
          </button>
          {typing !== place.id && (
            <button className="link" onClick={() => setTyping(place.id)}>
              Type a measure…
            </button>
          )}
        </footer>
      )}
      {rules && <DeductionDialog onClose={() => setRules(false)} />}
    </section>
  );
}
