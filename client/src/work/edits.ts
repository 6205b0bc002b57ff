import type { Cell, Schemas } from "../api/client";
import type { Edit } from "../job/openJob";

type Answers = readonly Schemas["Answer"][];

type Question = Pick<Schemas["QuestionView"], "id" | "unit" | "bookUnit">;

/** An answer as it was typed: a number in the unit beside the field, or with a unit of its own. */
export function answer(question: Question, typed: string): Schemas["Answer"] {
  const [, value, own] = /^(.*?)\s*([a-z²³µ"]*)$/i.exec(typed.trim())!;
  const unit = own === '"' ? "in" : own || question.unit;
  return { question: question.id, value: value!, ...(unit === question.bookUnit ? {} : { unit }) };
}

/** The answers with one of them as it was typed; empty takes it back. */
export const answered = (was: Answers, question: Question, typed: string): Answers => {
  const others = was.filter((a) => a.question !== question.id);
  return typed === "" ? others : [...others, answer(question, typed)];
};

/** What was answered, with its unit where that is not the one beside the field. */
export function answerIn(answers: Answers | null | undefined, question: Question): string {
  const given = answers?.find((a) => a.question === question.id);
  if (!given) return "";
  const unit = given.unit ?? question.bookUnit;
  return unit === question.unit ? given.value : `${given.value} ${unit}`;
}

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
