import { useContext } from "react";
import type { FigureView, Schemas } from "../api/client";
import { WhyContext } from "../job/JobContext";

/** A number that the core made. It can be asked 'why?' by click, Enter or E. */
export function Figure({ figure, label, className = "" }: { figure: FigureView; label: string; className?: string }) {
  const why = useContext(WhyContext);
  return (
    <button
      type="button"
      className={`figure ${className}`}
      data-figure={figure.path}
      aria-label={`${label} ${figure.shown} ${figure.unit}, why?`}
      onClick={(event) => {
        event.stopPropagation();
        why(figure.path);
      }}
      onKeyDown={(event) => {
        if (event.key.toLowerCase() === "e" && !event.ctrlKey && !event.metaKey) {
          event.stopPropagation();
          why(figure.path);
        }
      }}
    >
      {figure.shown}
      {figure.unit && <i>{figure.unit}</i>}
    </button>
  );
}

/** Words of the proposal; those that are a figure by its name can be asked how it came about. */
export function SpanFigure({ span }: { span: Schemas["Span"] }) {
  if (!span.name) return span.text;
  if (!span.figure) return <span title={`${span.name}, follows the job`}>{span.text}</span>;
  return <Figure figure={{ path: span.figure, shown: span.text, unit: "", value: "" }} label={span.name!} />;
}

/** The amount of a row of the proposal. */
export function RowFigure({ row }: { row: Schemas["PriceRow"] }) {
  return row.figure ? (
    <Figure figure={{ path: row.figure, shown: row.shown, unit: "", value: row.amount! }} label={row.label} />
  ) : (
    row.shown
  );
}
