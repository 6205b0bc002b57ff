import { useQuery } from "@tanstack/react-query";
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
  const [units, setUnits] = useState<"feet" | "metres">("feet");
  const [wrong, setWrong] = useState("");
  const navigate = useNavigate();
  const { data: customers } = useQuery(ask.customers);

  async function make() {
    await change.makeJob({ id, name, subtitle, customer: customer || null, units });
    void navigate(`/jobs/${id}/measure`);
  }

  return (
    <Ask
      title="New job"
      apply="Make the job"
      back="Cancel"
      width="xs"
      onApply={make}
      onRefused={(error) => {
        const ofName = (error as Refused).field === "name";
        setWrong(ofName ? error.message : "");
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
        hint="Customers are added on their own page, or later in the job's heading"
        options={(customers ?? []).map((c) => [c.id, c.name])}
        onChoose={setCustomer}
      />
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
