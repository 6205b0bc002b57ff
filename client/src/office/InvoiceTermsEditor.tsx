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
  const usual = data.usual!;
  const keepUsual = (part: Partial<typeof usual>) => keep({ usual: { ...usual, ...part } });
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
        <h3>Terms of paying, unless a job says otherwise</h3>
        <div className={styles.pair}>
          <Field
            label="Retained"
            unit="% of the value"
            value={usual.retention.percent}
            onKeep={async (now) => {
              const percent = now.trim() || "0";
              const { releases } = usual.retention;
              await keepUsual({
                retention: { ...usual.retention, percent, releases: releases.length > 0 ? releases : ["100"] },
              });
            }}
          />
          <Field
            label="Given back"
            unit="% of it"
            hint="like 50, 100: half with the completion note, then all"
            value={usual.retention.releases.join(", ")}
            onKeep={async (now) => {
              const releases = now
                .split(",")
                .map((r) => r.trim())
                .filter(Boolean);
              await keepUsual({ retention: { ...usual.retention, releases } });
            }}
          />
          <Field
            label="Discount for paying early"
            unit="%"
            value={usual.earlyPercent}
            onKeep={async (now) => {
              // Within how many days is said beside it; ten until then (common practice).
              await keepUsual({ earlyPercent: now.trim() || "0", earlyDays: usual.earlyDays || 10 });
            }}
          />
          <Field
            label="Taken within"
            unit="days of the invoice"
            value={String(usual.earlyDays)}
            onKeep={async (now) => {
              await keepUsual({ earlyDays: /^\d{1,4}$/.test(now.trim()) ? Number(now) : -1 });
            }}
          />
          <Field
            label="Interest on what is late"
            unit="% a year"
            hint="on reminders only"
            value={usual.interestPercent}
            onKeep={async (now) => {
              await keepUsual({ interestPercent: now.trim() || "0" });
            }}
          />
        </div>
        <Series orders={false} numbers={numbers} />
      </div>
    </section>
  );
}
