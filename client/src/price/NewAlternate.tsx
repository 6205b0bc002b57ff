import { useState } from "react";
import { type Refused, type Schemas, newId } from "../api/client";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { toggled } from "../controls/toggled";
import { useJob } from "../job/JobContext";
import styles from "./options.module.css";

type Kind = Schemas["AlternateKind"];

const nothing: ReadonlySet<string> = new Set();

interface Props {
  options: Schemas["OptionsView"];
  /** One that is there, to which more is added; null for a new one. */
  to: Schemas["OfferedView"] | null;
  onClose: () => void;
}

/** Puts work and places under one name that is offered beside the price. */
export function NewAlternate({ options, to, onClose }: Props) {
  const [open] = useJob();
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>(to?.kind ?? (options.adds.work.length > 0 ? "add" : "deduct"));
  const [work, setWork] = useState(nothing);
  const [places, setPlaces] = useState(nothing);
  const [wrong, setWrong] = useState("");
  const of = kind === "add" ? options.adds : options.deducts;
  function choose(now: Kind) {
    setKind(now);
    setWork(nothing);
    setPlaces(nothing);
    setWrong("");
  }
  const make = () =>
    open.send({
      type: "groupAlternate",
      alternate: to?.id ?? newId(),
      name: to?.name ?? name,
      kind,
      work: [...work],
      places: [...places],
    });
  return (
    <Ask
      title={to ? `Add to ${to.name}` : "New alternate"}
      width="md"
      apply={to ? "Add it" : "Offer it"}
      ready={of.work.length > 0}
      onApply={make}
      onRefused={(error) => {
        const ofName = (error as Refused).field === "name";
        setWrong(ofName ? error.message : "");
        return ofName;
      }}
      onClose={onClose}
    >
      {!to && (
        <>
          <Input label="Name, as the customer reads it" focus value={name} onType={setName} wrong={wrong} />
          <Radios
            label="Taking it"
            value={kind}
            options={[
              { value: "add", words: "adds to the price", small: "work that stands as an alternate" },
              { value: "deduct", words: "takes off", small: "work that is in the price is left out" },
            ]}
            onChoose={choose}
          />
        </>
      )}
      {of.work.length === 0 ? (
        <p className="note">
          {kind === "add"
            ? "Nothing stands as an alternate by itself: mark it on Work, or under Worth."
            : "Nothing is in the price that is not in another alternate."}
        </p>
      ) : (
        <div className={styles.pick}>
          <Pick heading="Work" none="all work" of={of.work} chosen={work} onChoose={setWork} />
          <Pick heading="Places" none="every place" of={of.places} chosen={places} onChoose={setPlaces} />
        </div>
      )}
    </Ask>
  );
}

interface PickProps {
  heading: string;
  /** What it is when nothing is ticked. */
  none: string;
  of: readonly Schemas["NamedView"][];
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
}

function Pick({ heading, none, of, chosen, onChoose }: PickProps) {
  return (
    <fieldset>
      <legend>
        {heading} <small>{chosen.size === 0 ? none : `${chosen.size} of ${of.length}`}</small>
      </legend>
      {of.map((one) => (
        <Check key={one.id} on={chosen.has(one.id)} onTick={() => onChoose(toggled(chosen, one.id))}>
          {one.name}
        </Check>
      ))}
    </fieldset>
  );
}
