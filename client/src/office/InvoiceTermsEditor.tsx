import { useQuery, useQueryClient } from "@tanstack/react-query";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import styles from "./office.module.css";
import { Series, useNumbers } from "./Series";

/** How the firm bills: numbers, due days, what stands at the end of an invoice. */
export function InvoiceTermsEditor() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.invoiceTerms);
  const numbers = useNumbers(false);
  const keep = (part: Partial<NonNullable<typeof data>>) =>
    change
      .invoiceTerms({ was: data!, now: { ...data!, ...part } })
      .finally(() =>
        Promise.all([
          queries.invalidateQueries(ask.invoiceTerms),
          queries.invalidateQueries({ queryKey: ["numbers"] }),
        ]),
      );
  if (!data || !numbers) return null;
  return (
    <section className={`panel ${styles.wide}`} aria-label="Invoices">
      <header>
        <h2>Invoices</h2>
        <span className="note">the next is {numbers.next}; credit notes share the series</span>
      </header>
      <div className="pad">
        <div className={styles.pair}>
          <Field
            label="How they are numbered"
            hint="{number} or {number:4}, and {year} where each year begins at 1"
            value={data.numbers}
            onKeep={async (now) => {
              await keep({ numbers: now.trim() });
            }}
          />
          <Field
            label="Due after"
            unit="days"
            value={String(data.dueDays)}
            onKeep={async (now) => {
              await keep({ dueDays: /^\d{1,4}$/.test(now.trim()) ? Number(now) : -1 });
            }}
          />
          <Choice
            label="What is billed on account is used up"
            value={data.use}
            options={[
              ["inProportion", "in proportion to the work billed"],
              ["first", "first"],
              ["last", "last"],
            ]}
            onChoose={(use) => void keep({ use })}
          />
          <Field
            label="At the end of an invoice"
            sentence
            rows={3}
            hint="where to pay, and what your country's law asks for"
            value={data.words}
            onKeep={async (words) => {
              await keep({ words });
            }}
          />
        </div>
        <Series orders={false} numbers={numbers} />
      </div>
    </section>
  );
}
