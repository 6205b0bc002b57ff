import { type PointerEvent, useRef } from "react";
import styles from "./signature.module.css";

interface Props {
  label: string;
  /** What was drawn: points divided by spaces, strokes by semicolons, in a field of 1,000 by 300; empty for nothing. */
  drawn: string;
  onDraw: (drawn: string) => void;
}

const wide = 1000;
const high = 300;

/** Most points of all strokes: a name needs a tenth of them. */
const most = 4000;

/** A name that was drawn. */
export function Drawn({ drawn, label }: { drawn: string; label: string }) {
  return (
    <svg className={styles.drawn} viewBox={`0 0 ${wide} ${high}`} role="img" aria-label={label}>
      {drawn.split(";").map((stroke, i) => (
        <polyline key={i} points={dot(stroke)} />
      ))}
    </svg>
  );
}

/** A stroke of one point is drawn as a dot. */
const dot = (stroke: string) => (stroke.includes(" ") ? stroke : `${stroke} ${stroke}`);

/** A field to draw one's name in, with finger, pen or mouse; whoever cannot types it instead. */
export function SignaturePad({ label, drawn, onDraw }: Props) {
  const going = useRef(false);
  const at = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const within = (part: number, of: number, most: number) => Math.round(Math.min(1, Math.max(0, part / of)) * most);
    return `${within(e.clientX - box.left, box.width, wide)},${within(e.clientY - box.top, box.height, high)}`;
  };
  const full = drawn.split(/[ ;]/).length >= most;
  return (
    <div className={styles.pad}>
      <svg
        viewBox={`0 0 ${wide} ${high}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={label}
        onPointerDown={(e) => {
          if (full) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          going.current = true;
          onDraw(drawn === "" ? at(e) : `${drawn};${at(e)}`);
        }}
        onPointerMove={(e) => {
          if (going.current && !full) onDraw(`${drawn} ${at(e)}`);
        }}
        onPointerUp={() => (going.current = false)}
        onPointerCancel={() => (going.current = false)}
      >
        <line x1="40" x2={wide - 40} y1="225" y2="225" />
        {drawn !== "" && drawn.split(";").map((stroke, i) => <polyline key={i} points={dot(stroke)} />)}
      </svg>
      <p>
        <span>sign above the line</span>
        <button type="button" disabled={drawn === ""} onClick={() => onDraw("")}>
          Clear
        </button>
      </p>
    </div>
  );
}
