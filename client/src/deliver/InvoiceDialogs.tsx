import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import { useInvoices } from "./useInvoices";

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
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title={`Payment for ${row.number}`}
      apply="Write it"
      width="xs"
      ready={amount.trim() !== ""}
      onApply={() => did(change.pay(job.id, row.id, { id, amount, day, how }))}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["amount", "day", "how"].includes(field);
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

/** Undoes an invoice whole. */
export function CreditDialog({ row, did, onClose }: Props) {
  const { job } = useInvoices();
  const [id] = useState(newId);
  const [reason, setReason] = useState("");
  const [wrong, setWrong] = useState("");
  return (
    <Ask
      title={`Credit ${row.number}`}
      apply="Issue the credit note"
      width="xs"
      ready={reason.trim() !== ""}
      onApply={() => did(change.creditInvoice(job.id, row.id, { id, reason }))}
      onRefused={(error) => {
        setWrong(error.message);
        return true;
      }}
      onClose={onClose}
    >
      <p>
        A credit note of {row.total} takes the next number of the same series and undoes all that {row.number} did: its
        step can be billed again, and what was paid is to be given back.
      </p>
      <Input label="Why" focus maxLength={500} value={reason} wrong={wrong} onType={setReason} />
    </Ask>
  );
}
