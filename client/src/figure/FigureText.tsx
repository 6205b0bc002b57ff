import type { FigureView } from "../api/client";

/** A figure in running text: it cannot be pressed itself, but carries its path; what stands around it answers `E`. */
export function FigureText({ figure }: { figure: FigureView }) {
  return (
    <span data-of={figure.path}>
      {figure.shown}
      {figure.unit && (
        <>
          {" "}
          <i>{figure.unit}</i>
        </>
      )}
    </span>
  );
}

/** A figure in a name that is read out. */
export const inWords = (figure: FigureView) => `${figure.shown} ${figure.unit}`.trim();

/** A figure that the core says in words, like the packs that make a purchase. */
export const FigureWords = ({ figure, words }: { figure: FigureView; words: string }) => (
  <span data-of={figure.path}>{words}</span>
);
