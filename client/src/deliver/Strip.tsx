import { type CSSProperties, type KeyboardEvent, type PointerEvent, useLayoutEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { classes } from "../controls/classes";
import styles from "./schedule.module.css";

type View = Schemas["StripView"];
type Piece = Schemas["StripPiece"];
type Span = Schemas["StripSpan"];

interface Props {
  strip: View;
  chosen: string;
  /** A piece that keeps the keys after it was moved. */
  focus: string | null;
  onChoose: (task: string) => void;
  /** Moves a task by days of work. */
  onStep: (task: string, by: number) => void;
  /** Puts a task on a day. */
  onDrop: (task: string, day: string) => void;
  onBack: () => void;
}

/** A piece under the pointer: where it was taken, how wide a day is, and how many days it is away by now. */
interface Drag {
  task: string;
  x: number;
  width: number;
  days: number;
}

/** Thousandths of a day in one. */
const day = 1000;

/** How many days a pointer is away from where it took a piece. */
const daysOf = (drag: Drag, e: PointerEvent) => Math.round((e.clientX - drag.x) / drag.width);

/** Where a span lies, as a part of the strip. */
const place = (span: Span, days: number): CSSProperties => ({
  left: `${(span.from / (days * day)) * 100}%`,
  width: `${((span.to - span.from) / (days * day)) * 100}%`,
});

/** Days along, places or crews down, tasks as pieces of tape. */
export function Strip({ strip, chosen, focus, ...does }: Props) {
  const days = strip.days.length;
  const board = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  // Whoever sees it can press its keys: it has the focus before it is painted.
  useLayoutEffect(() => {
    if (focus) board.current?.querySelector<HTMLElement>(`[data-task="${focus}"]`)?.focus({ preventScroll: true });
  }, [focus, strip]);

  function down(piece: Piece, e: PointerEvent<HTMLElement>) {
    if (piece.job || piece.isBegun || e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    const line = e.currentTarget.closest("[data-line]");
    setDrag({ task: piece.task, x: e.clientX, width: (line?.clientWidth ?? days) / days, days: 0 });
  }
  function moved(e: PointerEvent<HTMLElement>) {
    if (!drag) return;
    setDrag({ ...drag, days: daysOf(drag, e) });
  }
  function up(piece: Piece, e: PointerEvent<HTMLElement>) {
    setDrag(null);
    if (!drag) return;
    // From the event itself: the last move may not have been drawn yet.
    const by = daysOf(drag, e);
    const to = strip.days[Math.min(Math.max(Math.floor(piece.span.from / day) + by, 0), days - 1)];
    if (by !== 0 && to) does.onDrop(piece.task, to.day);
  }
  function keys(piece: Piece, e: KeyboardEvent) {
    if (e.key === "Escape") does.onBack();
    if (!e.altKey || (e.key !== "ArrowLeft" && e.key !== "ArrowRight") || piece.job) return;
    // The browser would go a page back.
    e.preventDefault();
    e.stopPropagation();
    does.onStep(piece.task, e.key === "ArrowLeft" ? -1 : 1);
  }

  return (
    <div className={styles.strip} ref={board} style={{ "--days": days } as CSSProperties}>
      <div className={styles.tape} aria-hidden="true">
        {strip.days.map((d) => (
          <span key={d.day} className={classes(d.isWeek && styles.week, d.isOff && styles.offDay)}>
            {d.month && <small>{d.month}</small>}
            {d.name}
          </span>
        ))}
      </div>
      <div className={styles.lines}>
        <div className={styles.ground} aria-hidden="true">
          {strip.days.map(
            (d, at) =>
              d.isOff && (
                <i key={d.day} style={place({ from: at * day, to: (at + 1) * day }, days)}>
                  {d.why && <em>{d.why}</em>}
                </i>
              ),
          )}
          {strip.now !== null && <b style={{ left: `${(strip.now / (days * day)) * 100}%` }} />}
        </div>
        {strip.rows.map((row) => (
          <section
            key={row.name}
            className={styles.row}
            aria-label={`${row.name}: ${row.note}`}
            style={{ "--lanes": row.lanes } as CSSProperties}
            data-line
          >
            <h3>
              {row.name} <span>{row.note}</span>
            </h3>
            {row.off.map((off) => (
              <i key={off.from} className={styles.away} style={place(off, days)} title="off" />
            ))}
            {row.pieces.map((piece) => {
              const lane = { "--lane": piece.lane } as CSSProperties;
              const own = drag?.task === piece.task && drag.days !== 0 ? drag : null;
              return (
                <div key={`${piece.job}${piece.task}`} className={styles.pieceAndRest} style={lane}>
                  {piece.was && <i className={styles.wasThere} style={place(piece.was, days)} />}
                  {piece.dries && (
                    <i className={styles.drying} style={place(piece.dries, days)}>
                      <span>{piece.driesFor}</span>
                    </i>
                  )}
                  <button
                    type="button"
                    data-task={piece.task}
                    aria-label={piece.says}
                    aria-pressed={piece.job ? undefined : chosen === piece.task}
                    title={piece.says}
                    disabled={piece.job !== null}
                    className={classes(
                      styles.piece,
                      piece.isDone && styles.isDone,
                      piece.isBegun && styles.isBegun,
                      piece.job && styles.other,
                      piece.clashes && styles.clashes,
                      own && styles.dragged,
                    )}
                    style={{
                      ...place(piece.span, days),
                      ...(own ? { transform: `translateX(${own.days * own.width}px)` } : {}),
                    }}
                    onClick={() => does.onChoose(piece.task)}
                    onKeyDown={(e) => keys(piece, e)}
                    onPointerDown={(e) => down(piece, e)}
                    onPointerMove={moved}
                    onPointerUp={(e) => up(piece, e)}
                    onPointerCancel={() => setDrag(null)}
                  >
                    <b>
                      {piece.isDone && "✓ "}
                      {piece.name}
                    </b>
                    <span>{piece.under}</span>
                    {piece.isPinned && <i aria-hidden="true">◆</i>}
                  </button>
                </div>
              );
            })}
          </section>
        ))}
      </div>
    </div>
  );
}
