import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas, Work } from "../api/client";
import { Field } from "../controls/Field";
import { Figure } from "../figure/Figure";
import { inWords } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import { ApplyTo } from "./ApplyTo";
import { CellSettings } from "./CellSettings";
import { takeMeasure } from "./edits";
import { useOwnCells } from "./ownCells";
import { ConditionChecks, Part } from "./Settings";
import { seen } from "./range";
import styles from "./work.module.css";
import { askJob } from "../api/jobQueries";

const stateWords = {
  included: "included",
  excluded: "excluded: stated to customer and crew, priced at nothing",
  alternate: "an alternate: offered beside the price, and not in it",
};

/** Cells of one work item: how the figures of one came about, and what they have instead of their item. */
export function CellSheet({ places, item }: { places: readonly string[]; item: Work }) {
  const [open, { job, cells }] = useJob();
  const [applying, setApplying] = useState(false);
  const owns = useOwnCells(item.id);
  const there = places.filter((p) => cells.has(`${item.id}/${p}`));
  const one = places.length === 1 ? job.places.find((p) => p.id === places[0]) : undefined;
  const first = there[0] ?? places[0]!;
  const cell = one && cells.get(`${item.id}/${one.id}`);
  const { data: sheet } = useQuery({
    ...askJob.cell(job, item.id, first),
    placeholderData: (kept, query) =>
      query?.queryKey[4] === first && query.queryKey[3] === item.id ? kept : undefined,
  });
  const conditions = (
    <PlaceConditions places={job.places.filter((p) => places.includes(p.id))} bands={one ? (sheet?.bands ?? []) : []} />
  );
  if (there.length === 0)
    return (
      <section className={styles.cellsheet} aria-label={one ? "This cell" : "These cells"}>
        <p className="note">
          None here. Include it (I), exclude it with a sentence (O), or offer it as an alternate (L).
        </p>
        {conditions}
      </section>
    );
  return (
    <section className={styles.cellsheet} aria-label={one ? "This cell" : "These cells"}>
      {cell && one ? (
        <>
          <p className="note">{stateWords[cell.state]}</p>
          {cell.nothing && (
            <p>
              {cell.nothing.why} So it is no work: nobody is promised it.{" "}
              {cell.nothing.take && (
                <button className="act" onClick={() => void open.tell(takeMeasure(item.id, [[one.id, cell]])!)}>
                  Take {cell.nothing.take.label.toLowerCase()}, {inWords(cell.nothing.take.figure)}
                </button>
              )}
            </p>
          )}
          <Field
            key={`n${item.id}${one.id}`}
            label={cell.state === "excluded" ? "Say why, or what to leave" : "Note for customer and crew"}
            rows={2}
            sentence
            value={cell.note ?? ""}
            onKeep={(note) =>
              open.send({ type: "setNote", work: item.id, place: one.id, was: cell.note ?? "", note: note.trim() })
            }
          />
          {sheet && sheet.lines.length > 0 && (
            <ul className={styles.sentences} aria-label={`Workings of ${item.name} here`}>
              {sheet.lines.map((line) => (
                <li key={line.figure.path}>
                  {line.label} <Figure figure={line.figure} label={line.label} />
                  <span>{line.sentence}</span>
                </li>
              ))}
            </ul>
          )}
        </>
      ) : (
        <p className="note">
          {there.length === places.length
            ? `What is set here is set in all ${places.length} places.`
            : `What is set here is set in ${there.length} of these ${places.length} places; in the others there is none of it.`}
        </p>
      )}
      {sheet && owns && cell?.state !== "excluded" && (
        <CellSettings item={item} places={there} owns={owns} sheet={sheet} />
      )}
      <p className="acts">
        {one && (
          <button className="act" onClick={() => setApplying(true)}>
            Apply to other places…
          </button>
        )}
        {there.some((p) => cells.get(`${item.id}/${p}`)?.differs) && (
          <button
            className="act"
            onClick={() =>
              void open.tell({
                type: "fallBack",
                work: [item.id],
                places: there,
                was: seen([item.id], there, cells),
              })
            }
          >
            Fall back to the item
          </button>
        )}
      </p>
      {conditions}
      {applying && one && (
        <ApplyTo at={{ work: item.id, place: one.id }} item={item} onClose={() => setApplying(false)} />
      )}
    </section>
  );
}

/** Conditions on all work of places, or on one of the height bands of a place. */
function PlaceConditions({
  places,
  bands,
}: {
  places: readonly Schemas["PlaceView"][];
  bands: readonly Schemas["BandView"][];
}) {
  const [open] = useJob();
  const where = places.length === 1 ? places[0]!.name : `these ${places.length} places`;
  const of = (place: Schemas["PlaceView"], band: string) =>
    place.conditions.filter((c) => c.band === band).map((c) => c.condition);
  return (
    <ul className="rows">
      {[{ name: "", label: "" }, ...bands].map((band) => (
        <Part
          key={band.name}
          name={`place ${band.name}`}
          title={`Conditions on ${band.label ? `${band.label} of ` : "all work in "}${where}`}
          open={places.some((p) => of(p, band.name).length > 0)}
        >
          <li className={styles.stack}>
            <ConditionChecks
              chosen={places.map((p) => of(p, band.name))}
              onChange={(now) =>
                void open.tell({
                  type: "setPlaces",
                  field: "conditions",
                  at: places.map((p) => ({
                    place: p.id,
                    was: p.conditions,
                    now: [
                      ...p.conditions.filter((c) => c.band !== band.name),
                      ...now(of(p, band.name)).map((condition) => ({ condition, band: band.name })),
                    ],
                  })),
                } as never)
              }
            />
          </li>
        </Part>
      ))}
    </ul>
  );
}
