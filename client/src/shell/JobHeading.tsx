import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId } from "../api/client";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { CustomerForm } from "../customers/CustomerForm";
import { useJob } from "../job/JobContext";

const fields = [
  ["name", "Job"],
  ["subtitle", "In short"],
  ["date", "Date of the proposal"],
] as const;

/** What the job is called and who it is for, as its documents say it; each field saves by itself. */
export function JobHeading({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const [editing, setEditing] = useState(false);
  const { data: customers } = useQuery(ask.customers);
  const customer = customers?.find((c) => c.id === job.info.customer);
  const set = (field: string, was: unknown, now: unknown) =>
    ({ type: "setInfo", field, was, now }) as Parameters<typeof open.send>[0];
  const choose = (id: string | null) => open.send(set("customer", job.info.customer, id));
  return (
    <Ask title={`Job no. ${job.info.number}`} width="xs" onClose={onClose}>
      {fields.map(([field, label]) => (
        <Field
          key={field}
          label={label}
          value={job.info[field]}
          onKeep={(text) => open.send(set(field, job.info[field], text.trim()))}
        />
      ))}
      <Choice
        label="Customer"
        value={job.info.customer ?? ""}
        none="none yet"
        lost={customers && "a customer who is not in the list"}
        hint={customer?.address}
        options={(customers ?? []).map((c) => [c.id, c.name])}
        onChoose={(id) => void open.tell(set("customer", job.info.customer, id || null))}
      />
      <button type="button" className="link" onClick={() => setEditing(true)}>
        {customer ? "Change name or address of this customer" : "New customer"}
      </button>
      <Choice
        label="Units of this job"
        value={job.units}
        hint="Only what is shown changes; sizes stay as they were measured."
        options={[
          ["feet", "feet and inches"],
          ["metres", "metres"],
        ]}
        onChoose={(units) => void open.tell({ type: "setUnits", was: job.units, units })}
      />
      {editing && (
        <CustomerForm
          customer={customer ?? { id: newId(), name: "", address: "", email: "", phone: "" }}
          onKept={(kept) => (customer ? Promise.resolve() : choose(kept.id))}
          onClose={() => setEditing(false)}
        />
      )}
    </Ask>
  );
}
