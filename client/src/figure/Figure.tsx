import { useContext } from "react";
import type { FigureView } from "../api/client";
import { WhyContext } from "../job/JobContext";

/** A number that the core made. It can be asked 'why?' by click, Enter or E. */
export function Figure({ figure, label }: { figure: FigureView; label: string }) {
  const why = useContext(WhyContext);
  return (
    <button
      type="button"
      className="figure"
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
