import { inWords } from "../figure/FigureText";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import { Hatches } from "./hatches";
import styles from "./measure.module.css";
import { classes } from "../controls/classes";

type Drawing = Schemas["Drawing"];
type Cut = Schemas["Cut"];

/** Which openings a measure counts. */
const cuts: Record<string, (cut: Cut) => boolean> = {
  openingArea: (c) => c.kind !== "island",
  openingCount: (c) => c.kind !== "island",
  doorArea: (c) => c.kind === "door",
  windowArea: (c) => c.kind === "window",
  glassArea: (c) => c.glass,
  deductedArea: (c) => c.kind !== "island" && c.deducted,
  doorCount: (c) => c.kind === "door",
  windowCount: (c) => c.kind === "window",
  revealLength: (c) => c.kind !== "island",
  revealArea: (c) => c.kind !== "island",
};

/** Measures of edges: the perimeter is what the skirting follows. */
const edges: Record<string, string[]> = {
  perimeter: ["skirtingLength", "perimeter"],
};

const points = (list: readonly number[]) => {
  const pairs: string[] = [];
  for (let i = 0; i + 1 < list.length; i += 2) pairs.push(`${list[i]},${list[i + 1]}`);
  return pairs.join(" ");
};

interface Props {
  name: string;
  drawing: Drawing;
  measures: readonly Schemas["MeasureView"][];
  pointed: string | null;
  onPoint: (measure: string | null) => void;
}

/** A place to scale as the core drew it; what is measured is hatched, what is deducted is cut out, and pointing at a figure shows what it counts. */
export function PlaceDrawing({ name, drawing, measures, pointed, onPoint }: Props) {
  const id = useId();
  const { left, top, width, height } = drawing;
  // Letters and hatches keep their size on the screen whatever the room's: the sheet is 1000 wide.
  const scale = Math.max(width, height * 1.6) / 1000;
  const has = (measure: string) => measures.some((m) => m.name === measure);
  const firstOf = (counts: readonly string[]) =>
    counts.find((c) => c.startsWith("net") && has(c)) ?? counts.find((c) => has(c)) ?? null;
  const isOn = (counts: readonly string[]) => pointed !== null && counts.includes(pointed);
  const main = measures.slice(0, 8).filter((m) => ["area", "length", "count"].includes(m.kind));
  return (
    <svg
      className={styles.sheet}
      viewBox={`${left} ${top} ${width} ${height}`}
      role="img"
      aria-label={`${name} drawn to scale: ${main.map((m) => `${m.label} ${inWords(m.figure)}`).join(", ")}`}
    >
      <defs>
        <Hatches id={id} scale={scale} />
        <Hatches id={id} scale={scale} on />
      </defs>
      {drawing.surfaces.map((s, i) => (
        <polygon
          key={i}
          data-surface={s.kind + s.name}
          points={points(s.points)}
          fill={`url(#${id}${s.kind}${isOn(s.counts) ? "-on" : ""})`}
          className={classes(styles.surface, styles[s.kind], isOn(s.counts) && styles.on)}
          onPointerEnter={() => onPoint(firstOf(s.counts))}
          onPointerLeave={() => onPoint(null)}
        />
      ))}
      {drawing.cuts.map((c, i) => (
        <polygon
          key={i}
          data-opening={c.on}
          points={points(c.points)}
          className={classes(
            styles.cut,
            !c.deducted && styles.kept,
            pointed !== null && cuts[pointed]?.(c) && styles.on,
          )}
        >
          <title>{`${c.label}${c.deducted ? ", deducted" : ", not deducted"}`}</title>
        </polygon>
      ))}
      {drawing.edges.map((e, i) => (
        <line
          key={i}
          x1={e.x1}
          y1={e.y1}
          x2={e.x2}
          y2={e.y2}
          className={classes(
            styles.edge,
            styles[e.kind],
            pointed !== null && (pointed === e.kind || edges[pointed]?.includes(e.kind)) && styles.on,
          )}
        />
      ))}
      {drawing.marks.map((m, i) => (
        <text
          key={i}
          x={m.x}
          y={m.y}
          textAnchor="middle"
          dominantBaseline="central"
          className={m.quiet ? styles.quiet : undefined}
          style={{ fontSize: scale * 18 }}
          transform={m.turned ? `rotate(${m.turned} ${m.x} ${m.y})` : undefined}
        >
          {m.text}
        </text>
      ))}
    </svg>
  );
}

/** Walls that do not close, with the gap between the last and the first. */
export function OpenWalk({ walk }: { walk: readonly number[] }) {
  const xs = walk.filter((_, i) => i % 2 === 0);
  const ys = walk.filter((_, i) => i % 2 === 1);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const size = Math.max(Math.max(...xs) - left, Math.max(...ys) - top, 1);
  const margin = size * 0.12;
  return (
    <svg
      className={styles.sheet}
      viewBox={`${left - margin} ${top - margin} ${Math.max(...xs) - left + 2 * margin} ${Math.max(...ys) - top + 2 * margin}`}
      role="img"
      aria-label="The walls as typed, with the gap between the last and the first"
    >
      <polyline points={points(walk)} className={styles.walk} />
      <line x1={xs[0]} y1={ys[0]} x2={xs.at(-1)} y2={ys.at(-1)} className={styles.gap} />
      <circle cx={xs[0]} cy={ys[0]} r={size * 0.012} className={styles.gapend} />
      <circle cx={xs.at(-1)} cy={ys.at(-1)} r={size * 0.012} className={styles.gapend} />
    </svg>
  );
}

const legendKinds = ["floor", "wall", "ceiling", "site", "run", "tread", "riser", "item"];

/** What the hatches stand for, each with its figure. */
export function Legend({ drawing, measures, pointed, onPoint }: Omit<Props, "name">) {
  const id = useId();
  const seen = new Map<string, Schemas["MeasureView"]>();
  for (const kind of legendKinds) {
    const surface = drawing.surfaces.find((s) => s.kind === kind);
    const counts = surface?.counts ?? [];
    const measure =
      measures.find((m) => counts.includes(m.name) && m.name.startsWith("net")) ??
      measures.find((m) => counts.includes(m.name));
    if (measure && ![...seen.values()].includes(measure)) seen.set(kind, measure);
  }
  if (seen.size === 0) return null;
  return (
    <dl className={styles.legend}>
      {[...seen].map(([kind, m]) => (
        <div
          key={kind}
          className={pointed === m.name ? styles.pointed : undefined}
          onPointerEnter={() => onPoint(m.name)}
          onPointerLeave={() => onPoint(null)}
          onFocus={() => onPoint(m.name)}
          onBlur={() => onPoint(null)}
        >
          <dt>
            <svg width="26" height="16" aria-hidden="true">
              <defs>
                <Hatches id={id} scale={0.8} />
              </defs>
              <rect x="0.5" y="0.5" width="25" height="15" className={styles.surface} fill={`url(#${id}${kind})`} />
            </svg>
            {m.label}
          </dt>
          <dd>
            <Figure figure={m.figure} label={m.label} />
          </dd>
        </div>
      ))}
    </dl>
  );
}
