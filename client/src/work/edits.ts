import type { Cell, Schemas } from "../api/client";
import type { Edit } from "../job/openJob";

type Answers = readonly Schemas["Answer"][];

/** The answers with one of them as it was typed; empty takes it back. */
export const answered = (was: Answers, question: string, typed: string): Answers => {
  const others = was.filter((a) => a.question !== question);
  return typed === "" ? others : [...others, { question, value: typed }];
};

/** Takes the measures that places do have for work that comes to nothing there; null where they have none. */
export function takeMeasure(
  work: string,
  cells: readonly (readonly [place: string, cell: Cell | undefined])[],
): Edit | null {
  const at = cells.flatMap(([place, cell]) =>
    cell?.nothing?.take ? [{ place, was: cell.nothing.source, now: cell.nothing.take.name }] : [],
  );
  return at.length === 0 ? null : ({ type: "setCells", work, field: "source", at } as never);
}
