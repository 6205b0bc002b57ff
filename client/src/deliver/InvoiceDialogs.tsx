import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { MailPaper } from "./MailPaper";
import { useInvoices } from "./useDeliver";

interface Props {
  row: Schemas["InvoiceRow"];
  did: (answer: Promise<Schemas["InvoicesView"]>) => Promise<void>;
  onClose: () => void;
}

/** Money that came for an invoice, all of it or a part. */
export function PaymentDialog({ row, data, did, onClose }: Props & { data: Schemas["InvoicesView"] }) {
  const { job } = useInvoices();
  const [id] = useState(newId);
  const [amount, setAmount] = useState(row.pays);
  const [day, setDay] = useState(data.today);
  const [how, setHow] = useState("");
  const [early, setEarly] = useState(false);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title={`Payment for ${row.number}`}
      apply="Write it"
      width="xs"
      ready={amount.trim() !== ""}
      onApply={() =>
        did(change.pay(job.id, row.id, { id, amount, day, how, discount: early ? row.earlyDiscount : "" }))
      }
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["amount", "day", "how"].includes(field) || (field === "discount" && early);
      }}
      onClose={onClose}
    >
      <Input
        label="Amount"
        unit={data.currency}
        inputMode="decimal"
        focus
        value={amount}
        wrong={wrong["amount"]}
        hint="below nothing for what was given back"
        onType={setAmount}
      />
      {row.early && (
        <Check
          on={early}
          wrong={wrong["discount"]}
          onTick={(on) => {
            setEarly(on);
            setAmount(on ? row.earlyPays : row.pays);
          }}
        >
          Paid early: {row.early}
        </Check>
      )}
      <Input label="Day" placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
      <Input
        label="How it came"
        placeholder="bank transfer"
        maxLength={200}
        value={how}
        wrong={wrong["how"]}
        onType={setHow}
      />
    </Ask>
  );
}

/** Undoes an invoice whole, or a part of it. */
export function CreditDialog({ row, did, onClose }: Props) {
  const { job } = useInvoices();
  const [id] = useState(newId);
  const [what, setWhat] = useState<"whole" | "part">(row.mayCredit ? "whole" : "part");
  const [amounts, setAmounts] = useState<readonly string[]>(() => row.left.map(() => ""));
  const [reason, setReason] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title={`Credit ${row.number}`}
      apply="Issue the credit note"
      width="xs"
      ready={reason.trim() !== "" && (what === "whole" || amounts.some((a) => a.trim() !== ""))}
      onApply={() =>
        did(change.creditInvoice(job.id, row.id, { id, reason, amounts: what === "part" ? [...amounts] : [] }))
      }
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return field === "reason" || (field === "amount" && what === "part");
      }}
      onClose={onClose}
    >
      {row.mayCredit && (
        <Radios
          label="What is credited"
          value={what}
          options={[
            { value: "whole", words: `All of it, ${row.total}`, small: "its step can be billed again" },
            { value: "part", words: "A part", small: "further credits are of parts, too" },
          ]}
          onChoose={setWhat}
        />
      )}
      {what === "part" &&
        row.left.map(
          (left, at) =>
            left.amount && (
              <Input
                key={left.label}
                label={`Before tax, ${left.label}`}
                inputMode="decimal"
                value={amounts[at]!}
                wrong={wrong["amount"]}
                hint={`of ${left.amount} that is left`}
                onType={(text) => setAmounts(amounts.map((a, i) => (i === at ? text : a)))}
              />
            ),
        )}
      <p className="note">It takes the next number of the same series. What was paid beyond is to be given back.</p>
      <Input label="Why" focus maxLength={500} value={reason} wrong={wrong["reason"]} onType={setReason} />
    </Ask>
  );
}

/** A mail that brings an invoice to the customer, or a reminder of it. */
export function MailInvoice({ row, reminder, did, onClose }: Props & { reminder: string | null }) {
  const { job } = useInvoices();
  const [id] = useState(newId);
  const { data } = useQuery(askJob.invoiceMessage(job, row.id, reminder !== null));
  if (!data) return null;
  return (
    <MailPaper
      title={reminder ? `Mail the reminder of ${row.number}` : `Mail ${row.number}`}
      draft={data}
      brings={reminder ? "the reminder" : "it"}
      onSend={(message) => did(change.mailInvoice(job.id, row.id, { id, reminder, message }))}
      onClose={onClose}
    />
  );
}
