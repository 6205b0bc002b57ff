import type { Schemas } from "../api/client";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { typedNumber } from "../controls/typedNumber";
import { wholeOr } from "../controls/wholeOr";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { useRound } from "./useRound";

/** The terms of the round: when it begins, when it is billed, and the years after. */
export function RoundTerms({ view }: { view: Schemas["YearView"] }) {
  const [open, { job }] = useJob();
  const terms = job.round;
  const year = view.year!;
  const set = useRound();
  return (
    <section className="panel" aria-label="Terms of the round">
      <header>
        <h2>Terms of the round</h2>
      </header>
      <ul className="rows">
        <li>
          <Field
            label="First day"
            row
            value={terms.start || view.start}
            hint={terms.start ? undefined : "the month after the job’s date, unless you say"}
            onKeep={(text) => set("start", text.trim())}
          />
        </li>
        <li>
          <Choice
            label="Billed"
            row
            value={terms.billing}
            options={[
              ["level", "level"],
              ["overMonths", "over its months"],
              ["asDone", "as done"],
            ]}
            onChoose={(now) => void set("billing", now)}
          />
        </li>
        <li>
          <Field
            label="Least for a visit"
            row
            unit={job.info.currency}
            value={view.leastJob}
            onKeep={(text) =>
              open.send({
                type: "setPricing",
                field: "leastJob",
                was: job.pricing.leastJob,
                now: typedNumber(text),
              } as never)
            }
          />
        </li>
        {year.once && (
          <li>
            Once, cost <Figure figure={year.once.cost} label="Once, cost" />
          </li>
        )}
        <li>
          <Field
            label="Markup on supplies"
            row
            unit="%"
            value={terms.supplyMarkup}
            onKeep={(text) => set("supplyMarkup", typedNumber(text))}
          />
        </li>
        <li>
          <Field
            label="Each year after"
            row
            unit="%"
            value={terms.rise}
            onKeep={(text) => set("rise", typedNumber(text.replace(/^\+/, "")))}
          />
        </li>
        <li>
          <Field
            label="Years looked at"
            row
            value={String(terms.years)}
            onKeep={(text) => set("years", wholeOr(text))}
          />
        </li>
        {year.years.slice(1).map((price, i) => (
          <li key={i}>
            Year {i + 2} <Figure figure={price} label={`Year ${i + 2}`} />
          </li>
        ))}
      </ul>
    </section>
  );
}
