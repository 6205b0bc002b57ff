import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { type Refused, newId } from "../api/client";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { change } from "../api/changes";

/** A new job: what it is called, whom it is for, how it is measured. */
export function NewJob({ onClose }: { onClose: () => void }) {
  const [id] = useState(newId);
  const [name, setName] = useState("");
  const [subtitle, setSubtitle] = useState("");
  const [customer, setCustomer] = useState("");
  // One who is made here; with an id of its own from the start, so that trying again makes no second.
  const [made, setMade] = useState({ id: newId(), name: "", address: "", phone: "", email: "" });
  const [kept, setKept] = useState(false);
  const isNew = customer === "new";
  const [units, setUnits] = useState<"feet" | "metres">("feet");
  const [wrong, setWrong] = useState("");
  const [wrongCustomer, setWrongCustomer] = useState("");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { data: customers } = useQuery(ask.customers);

  async function make() {
    if (isNew && !kept) {
      await change.customer(made.id, { was: null, now: made });
      setKept(true);
      await queries.invalidateQueries(ask.customers);
    }
    await change.makeJob({ id, name, subtitle, customer: isNew ? made.id : customer || null, units });
    void navigate(`/jobs/${id}/measure`);
  }

  return (
    <Ask
      title="New job"
      apply="Add the job"
      width="xs"
      onApply={make}
      onRefused={(error) => {
        const ofName = (error as Refused).field === "name";
        // Both have a name; the customer's is asked for first.
        const ofCustomer = ofName && isNew && !kept;
        setWrongCustomer(ofCustomer ? error.message : "");
        setWrong(ofName && !ofCustomer ? error.message : "");
        return ofName;
      }}
      onClose={onClose}
    >
      <Input label="Job" focus hint="As the customer will read it" value={name} wrong={wrong} onType={setName} />
      <Input label="In short" hint="For instance: repaint, ground floor" value={subtitle} onType={setSubtitle} />
      <Choice
        label="Customer"
        value={customer}
        none="none yet"
        options={[...(customers ?? []).map((c) => [c.id, c.name] as const), ["new", "a new customer…"] as const]}
        onChoose={setCustomer}
      />
      {isNew && (
        <>
          <Input
            label="Customer's name"
            focus
            value={made.name}
            wrong={wrongCustomer}
            onType={(text) => setMade({ ...made, name: text })}
          />
          <Input label="Phone" value={made.phone} onType={(phone) => setMade({ ...made, phone })} />
        </>
      )}
      <Choice
        label="Measured in"
        value={units}
        options={[
          ["feet", "feet and inches"],
          ["metres", "metres"],
        ]}
        onChoose={setUnits}
      />
    </Ask>
  );
}
