import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Refused, Schemas } from "../api/client";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { exemptions, usualReason } from "../controls/exemptions";
import { Input } from "../controls/Input";
import { change } from "../api/changes";

export type Customer = Schemas["Customer"];

const fields = [
  ["name", "Name"],
  ["address", "Address"],
  ["email", "E-mail"],
  ["phone", "Phone"],
  ["country", "Country, two letters"],
  ["taxNumber", "VAT number"],
] as const;

interface Props {
  /** One without a name is made here. */
  customer: Customer;
  onKept?: (customer: Customer) => Promise<unknown>;
  onClose: () => void;
}

/** Who a customer is; kept as a whole. */
export function CustomerForm({ customer, onKept, onClose }: Props) {
  const [form, setForm] = useState(customer);
  // As it was seen; null for one that is made here.
  const [was, setWas] = useState<Customer | null>(customer.name === "" ? null : customer);
  const [wrong, setWrong] = useState<Refused | null>(null);
  const queries = useQueryClient();
  async function keep() {
    await change.customer(form.id, { was, now: form });
    await queries.invalidateQueries(ask.customers);
    await onKept?.(form);
  }
  function refused(error: Error) {
    const refused = error as Refused;
    setWrong(refused);
    // What somebody else has put there meanwhile has now been seen: kept once more, what is typed takes its place.
    if (refused.status === 409 && was && refused.field) setWas({ ...was, [refused.field]: refused.current });
    return refused.field === "exemption" || fields.some(([field]) => field === refused.field);
  }
  const says = (field: string) =>
    wrong?.field !== field
      ? undefined
      : wrong.status === 409
        ? `It has been changed${typeof wrong.current === "string" ? ` to “${wrong.current}”` : ""} meanwhile. Keep once more puts yours in its place.`
        : wrong.message;
  return (
    <Ask
      title={customer.name || "New customer"}
      apply="Keep"
      width="xs"
      onApply={keep}
      onRefused={refused}
      onClose={onClose}
    >
      {fields.map(([field, label]) => (
        <Input
          key={field}
          label={label}
          focus={field === "name"}
          value={form[field] ?? ""}
          wrong={says(field)}
          onType={(text) => setForm({ ...form, [field]: text })}
        />
      ))}
      <Choice
        label="No tax is charged"
        none="it is"
        value={form.exemption?.kind ?? ""}
        options={exemptions}
        wrong={form.exemption ? undefined : says("exemption")}
        onChoose={(kind) =>
          setForm({
            ...form,
            exemption: (kind as string) === "" ? null : { kind, reason: form.exemption?.reason ?? usualReason },
          })
        }
      />
      {form.exemption && (
        <Input
          label="Why none is charged"
          value={form.exemption.reason}
          wrong={says("exemption")}
          onType={(reason) => setForm({ ...form, exemption: { ...form.exemption!, reason } })}
        />
      )}
    </Ask>
  );
}
