import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { ChoiceOptions } from "./ChoiceOptions";
import { NewChoice } from "./NewChoice";
import styles from "./options.module.css";

type One = Schemas["ChoiceView"];

/** Choices of product or tier: what is included, what is taken instead, and what that comes to. */
export function Choices() {
  const [, { job }] = useJob();
  const [making, setMaking] = useState(false);
  const [opened, setOpened] = useState<string | null>(null);
  const { data } = useQuery(askJob.choices(job));
  if (!data) return null;
  const chosen = data.choices.find((c) => c.id === opened);
  return (
    <section className="panel" aria-label="Choices">
      <header>
        <h2>Choices</h2>
        <span className="note">one of several products or tiers; the price is printed with what is included</span>
        {data.work.length > 0 && (
          <button className="act" onClick={() => setMaking(true)}>
            New choice
          </button>
        )}
      </header>
      {data.choices.length === 0 ? (
        <p className="pad note">
          Let the customer choose between products, coats or colours of a piece of work, or bring in a supplier’s table
          of variations with their prices. One that is taken stands in the work; what does not go together is said.
        </p>
      ) : (
        <table className={`list ${styles.alternates}`} aria-label="Choices of the job">
          <thead>
            <tr>
              <th>Choice</th>
              <th>Included</th>
              <th>Taken</th>
              <th className="n">Difference</th>
              <th>Goes with</th>
              <th>Customer</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {data.choices.map((choice) => (
              <Row
                key={choice.id}
                choice={choice}
                all={data.choices}
                open={opened === choice.id}
                onOpen={() => setOpened(opened === choice.id ? null : choice.id)}
              />
            ))}
          </tbody>
        </table>
      )}
      {chosen && <ChoiceOptions key={chosen.id} choice={chosen} all={data.choices} />}
      {data.choices.length > 0 && (
        <ul className="rows" aria-label="Choices taken together">
          {data.together.map((row) => (
            <li key={row.label} className={row.sum ? styles.sum : undefined}>
              <span>{row.label}</span>
              <Figure figure={row.figure} label={`${row.label}, choices`} />
            </li>
          ))}
        </ul>
      )}
      {making && <NewChoice work={data.work} onClose={() => setMaking(false)} />}
    </section>
  );
}

interface RowProps {
  choice: One;
  all: readonly One[];
  open: boolean;
  onOpen: () => void;
}

function Row({ choice, all, open: shown, onOpen }: RowProps) {
  const [open] = useJob();
  const { name } = choice;
  const set = (field: "name" | "follows" | "locked" | "hidden" | "supplierShown", now: unknown) =>
    open.send({ type: "setChoice", choice: choice.id, field, was: choice[field] ?? null, now } as never);
  const tell = (sent: Promise<unknown>) => void sent.catch((error: Error) => open.say(error.message));
  return (
    <tr aria-current={shown || undefined}>
      <th scope="row">
        <Field label={`Name of ${name}`} bare value={name} onKeep={(text) => set("name", text.trim())} />
        <small>
          {choice.workName} · {choice.places}
        </small>
        {choice.byHand && (
          <small className="error">≠ the work was set otherwise since: take an option to put it right.</small>
        )}
        {choice.refused && <small className="error">{choice.refused}</small>}
      </th>
      <td>{choice.included.name}</td>
      <td>
        <b>{choice.taken.id === choice.included.id ? "as included" : choice.taken.name}</b>
        {choice.supplier && <small>{choice.supplier}</small>}
      </td>
      <td className="n">{choice.difference && <Figure figure={choice.difference} label={`${name}, difference`} />}</td>
      <td>
        <Choice
          label={`${name} goes with`}
          bare
          value={choice.follows ?? ""}
          none="nothing"
          options={all.filter((c) => c.id !== choice.id).map((c) => [c.id, c.name] as const)}
          onChoose={(now) => tell(set("follows", now || null))}
        />
      </td>
      <td>
        <Check on={!choice.hidden} onTick={(on) => tell(set("hidden", !on))}>
          offered
        </Check>
        <Check on={choice.supplierShown} onTick={(on) => tell(set("supplierShown", on))}>
          reads the supplier
        </Check>
        <Check on={choice.locked} onTick={(on) => tell(set("locked", on))}>
          locked
        </Check>
      </td>
      <td>
        <span className={styles.acts}>
          <button className="act" aria-expanded={shown} aria-label={`Options of ${name}`} onClick={onOpen}>
            {choice.count} options
          </button>
          <button
            className="act"
            aria-label={`Remove ${name}`}
            onClick={() => void open.tell({ type: "removeChoice", choice: choice.id })}
          >
            Remove
          </button>
        </span>
      </td>
    </tr>
  );
}
