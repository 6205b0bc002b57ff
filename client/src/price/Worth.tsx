import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { Figure } from "../figure/Figure";
import { FigureText } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import styles from "./price.module.css";

type Kind = Schemas["PieceKind"];
type Piece = Schemas["PieceView"];
type State = Schemas["PieceState"];

/** Pieces that are told in one answer. */
const atATime = 50;
const states: readonly (readonly [State, string])[] = [
  ["in", "in the price"],
  ["alternate", "alternate"],
  ["out", "left out"],
];

/** Pieces of a list that stand until all are asked for. */
const first = 4;

/** What each section, place and work item is worth, and what alternates and left-out pieces would add. */
export function WorthView() {
  return (
    <section className={`panel ${styles.worth}`} aria-label="What each piece is worth">
      <p className={styles.legend}>
        <span>
          <i className={styles.costBar} /> cost
        </span>
        <span>
          <i className={styles.profitBar} /> gross profit
        </span>
        <span className="note">bars: each list to its largest</span>
      </p>
      <Pieces kind="section" heading="By section" all />
      <Pieces kind="place" heading="By place" />
      <Pieces kind="work" heading="By work" />
    </section>
  );
}

function Pieces({ kind, heading, all = false }: { kind: Kind; heading: string; all?: boolean }) {
  const [open, { job }] = useJob();
  const [whole, setWhole] = useState(all);
  const [stopped, setStopped] = useState<number | null>(null);
  const [chunks, setChunks] = useState(1);
  const answers = useQueries({
    queries: Array.from({ length: chunks }, (_, i) => askJob.worth(job, kind, i * atATime, atATime)),
  });
  const count = answers[0]?.data?.all ?? 0;
  const told = answers.flatMap((a) => a.data?.pieces ?? []);
  const done = answers.every((a) => a.data && !a.isPlaceholderData);
  // The next part is asked for when the one before it is there, so that it can be stopped in between.
  if (done && stopped === null && chunks * atATime < count) setChunks(chunks + 1);
  if (told.length === 0) return null;
  const of = (state: State) =>
    told.filter((p) => p.state === state).toSorted((a, b) => Number(b.price?.value) - Number(a.price?.value));
  const within = of("in");
  const beside = [...of("alternate"), ...of("out")];
  const largest = within[0]?.price?.value ?? "1";
  const set = (piece: Piece, now: State) =>
    void open.tell({ type: "setPiece", kind, piece: piece.id, was: piece.state, now });
  const row = (piece: Piece) => (
    <li key={piece.state + piece.id}>
      <span className={styles.what}>
        <b>{piece.name}</b> <small>{piece.detail}</small>
      </span>
      <span className={piece.state === "in" ? styles.bars : `${styles.bars} ${styles.beside}`} aria-hidden="true">
        <i className={styles.costBar} style={{ width: `calc(${piece.cost} / ${largest} * 100%)` }} />
        <i className={styles.profitBar} style={{ width: `calc(${piece.profit} / ${largest} * 100%)` }} />
      </span>
      {piece.price ? (
        <>
          <span className="n">
            {piece.state !== "in" && "+"}
            <Figure figure={piece.price} label={`${piece.name}, worth`} />
          </span>
          <span className="n">{piece.hours && <Figure figure={piece.hours} label={`${piece.name}, hours`} />}</span>
          <span className="n">
            {piece.grossProfit && <Figure figure={piece.grossProfit} label={`${piece.name}, gross profit`} />}
          </span>
          <span className="n">{piece.margin && <Figure figure={piece.margin} label={`${piece.name}, margin`} />}</span>
        </>
      ) : (
        <span className={`error ${styles.refused}`}>{piece.refused}</span>
      )}
      <Choice
        label={`${piece.name} stands`}
        bare
        value={piece.state}
        options={states}
        onChoose={(now) => set(piece, now)}
      />
    </li>
  );
  const shown = whole ? within : within.slice(0, first);
  const sum = answers[0]?.data?.sum;
  return (
    <section aria-label={heading} className={styles.pieces}>
      <h3>
        {heading}{" "}
        <small>
          {whole || within.length <= first ? within.length : `largest ${first} of ${within.length}`}
          {!done && `, ${told.length} of ${count} told`}
        </small>
        {!done && stopped === null && count > atATime && (
          <button className="act" onClick={() => setStopped(chunks)}>
            Stop
          </button>
        )}
        {stopped !== null && told.length < count && (
          <button className="act" onClick={() => setStopped(null)}>
            Go on: {told.length} of {count} told
          </button>
        )}
        {!all && within.length > first && (
          <button className="act" aria-expanded={whole} onClick={() => setWhole(!whole)}>
            {whole ? `Show the largest ${first}` : `Show all ${within.length}`}
          </button>
        )}
      </h3>
      <ul className={styles.list}>{shown.map(row)}</ul>
      {kind === "section" && sum && (
        <p className={styles.together}>
          Together they come to{" "}
          <b>
            <FigureText figure={sum} />
          </b>
          ; the price before rounding is{" "}
          <b>
            <FigureText figure={answers[0]!.data!.price} />
          </b>
          . They need not add up: a pack that two share, a least charge, an amount of the whole job belongs to no one
          piece.
        </p>
      )}
      {beside.length > 0 && (
        <>
          <h3>
            Not in the price <small>{beside.length}, what each would add</small>
          </h3>
          <ul className={styles.list}>{beside.map(row)}</ul>
        </>
      )}
    </section>
  );
}
