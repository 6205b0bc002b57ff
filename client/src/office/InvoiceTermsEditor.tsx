import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import styles from "./office.module.css";

/** How the firm bills: numbers, due days, what stands at the end of an invoice. */
export function InvoiceTermsEditor() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.invoiceTerms);
  const { data: numbers } = useQuery(ask.numbers);
  const [moving, setMoving] = useState("");
  const keep = (part: Partial<NonNullable<typeof data>>) =>
    change
      .invoiceTerms({ was: data!, now: { ...data!, ...part } })
      .finally(() =>
        Promise.all([queries.invalidateQueries(ask.invoiceTerms), queries.invalidateQueries(ask.numbers)]),
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
        <p>
          <button type="button" className="act" onClick={() => setMoving(newId())}>
            Move the series on
          </button>
        </p>
        {numbers.gaps.length > 0 && (
          <ul aria-label="Gaps that a person made">
            {numbers.gaps.map((gap) => (
              <li key={gap.skipped + gap.at}>
                {gap.skipped} skipped: {gap.reason} <span className="note">{gap.at}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
      {moving && <MoveOn id={moving} next={numbers.nextNumber} onClose={() => setMoving("")} />}
    </section>
  );
}

/** Moves the series on, with the reason for the gap. */
function MoveOn({ id, next, onClose }: { id: string; next: number; onClose: () => void }) {
  const queries = useQueryClient();
  const [to, setTo] = useState("");
  const [reason, setReason] = useState("");
  return (
    <Ask
      title="Move the series on"
      apply="Move it"
      width="xs"
      ready={/^\d{1,9}$/.test(to.trim()) && reason.trim() !== ""}
      onApply={async () => {
        await change.moveNumbers({ id, next: Number(to), reason });
        await queries.invalidateQueries(ask.numbers);
      }}
      onClose={onClose}
    >
      <p className="note">
        A series goes forward alone. What is skipped is a gap that you made: it is listed here with your reason.
      </p>
      <Input
        label="The next number is"
        inputMode="numeric"
        focus
        value={to}
        hint={`it would be ${next}`}
        onType={setTo}
      />
      <Input label="Why" maxLength={500} value={reason} onType={setReason} />
    </Ask>
  );
}
