import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import { useInvoices } from "./useDeliver";

type Terms = Schemas["TermsTyped"];

/** The fields of terms of paying, as the firm's and a job's are alike. */
export const termFields: readonly { field: keyof Terms; label: string; unit?: string; hint?: string }[] = [
  { field: "retention", label: "Retained", unit: "% of the value", hint: "before tax; tax is billed in full" },
  { field: "cap", label: "At most", hint: "money; empty for no cap" },
  { field: "capPercent", label: "At most", unit: "% of the contract sum", hint: "empty for no cap" },
  {
    field: "releases",
    label: "Given back",
    unit: "% of it",
    hint: "50, 100: half with the completion note, then all; empty for all at once",
  },
  { field: "earlyPercent", label: "Discount for paying early", unit: "%" },
  { field: "earlyDays", label: "Taken within", unit: "days of the invoice" },
  { field: "interest", label: "Interest on what is late", unit: "% a year", hint: "on reminders only, without tax" },
];

/** What is agreed about paying for this job, from now on. */
export function TermsDialog(props: {
  terms: Terms;
  currency: string;
  did: (answer: Promise<Schemas["InvoicesView"]>) => Promise<void>;
  onClose: () => void;
}) {
  const { job } = useInvoices();
  const [id] = useState(newId);
  const [terms, setTerms] = useState(props.terms);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title="Terms of paying"
      apply="They hold from now on"
      onApply={() => props.did(change.agreeTerms(job.id, { id, terms }))}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return termFields.some((f) => f.field === field);
      }}
      onClose={props.onClose}
    >
      <p className="note">
        They reach what is billed from now on; what was issued stays as it was. Your contract and the law may ask for
        something else.
      </p>
      {termFields.map(({ field, label, unit, hint }, at) => (
        <Input
          key={field}
          label={label}
          unit={unit ?? props.currency}
          inputMode="decimal"
          focus={at === 0}
          value={terms[field]}
          wrong={wrong[field]}
          hint={hint}
          onType={(text) => setTerms({ ...terms, [field]: text })}
        />
      ))}
    </Ask>
  );
}
