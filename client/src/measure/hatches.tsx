import styles from "./measure.module.css";
import { classes } from "../controls/classes";
/** How a kind of surface is hatched: told apart by pattern, not by colour, as on a drawing. */
const strokes: Record<string, { size: number; turn?: number; path?: string; dot?: boolean; dashed?: boolean }> = {
  wall: { size: 11, turn: 45, path: "M0 0V11" },
  floor: { size: 13, path: "M0 0H13M0 0V13" },
  ceiling: { size: 11, dot: true },
  site: { size: 16, path: "M1 4h6M9 12h6M4 1v6" },
  run: { size: 6, path: "M0 3H6" },
  tread: { size: 9, path: "M0 0H9M0 0V9" },
  riser: { size: 7, turn: -45, path: "M0 0V7" },
  item: { size: 10, turn: 45, path: "M0 0V10M0 0H10" },
  unknown: { size: 10 },
};

export const hatchKinds = Object.keys(strokes);

/** Patterns for every kind, at a scale: 1 for the screen, the sheet's width ÷ 1000 in a drawing. */
export function Hatches({ id, on, scale }: { id: string; on?: boolean; scale: number }) {
  return (
    <g className={classes(styles.hatch, on && styles.on)}>
      {Object.entries(strokes).map(([kind, s]) => (
        <pattern
          key={kind}
          id={`${id}${kind}${on ? "-on" : ""}`}
          width={s.size}
          height={s.size}
          patternUnits="userSpaceOnUse"
          patternTransform={`scale(${scale}) rotate(${s.turn ?? 0})`}
        >
          <rect width={s.size} height={s.size} className={styles.back} />
          {s.path && <path d={s.path} strokeWidth="1.4" />}
          {s.dot && <circle cx={s.size / 2} cy={s.size / 2} r="1.1" className={styles.dot} />}
        </pattern>
      ))}
    </g>
  );
}
