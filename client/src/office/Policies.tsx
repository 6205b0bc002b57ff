import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { freeName } from "../controls/freeName";
import { PaymentTerms } from "../price/PaymentTerms";
import { type TermsHeld, GuardTerms, OnCost, StepTerms, TaxTerms, bases } from "../price/TermFields";
import priceStyles from "../price/price.module.css";
import styles from "./office.module.css";

type Policies = Schemas["PricePolicies"];

/** The firm's price policies: named sets of terms, one of which new jobs take. */
export function Policies({ currency }: { currency: string }) {
  const queries = useQueryClient();
  const { data } = useQuery(ask.policies);
  const [shown, setShown] = useState("");
  const [wrong, setWrong] = useState("");
  if (!data) return null;
  const policy = data.all.find((p) => p.id === shown) ?? data.all.find((p) => p.id === data.usual)!;

  async function save(part: Partial<Policies>) {
    try {
      await change.policies({ was: data!, now: { ...data!, ...part } });
    } finally {
      await queries.invalidateQueries(ask.policies);
    }
  }
  const saveOne = (now: Partial<Policies["all"][number]>) =>
    save({ all: data.all.map((p) => (p.id === policy.id ? { ...p, ...now } : p)) });
  const tell = (done: Promise<void>) => void done.then(() => setWrong("")).catch((e: Error) => setWrong(e.message));
  const held: TermsHeld = {
    terms: policy.terms,
    set: (field, now) => saveOne({ terms: { ...policy.terms, [field]: now } }),
  };
  return (
    <section className={`panel ${styles.wide}`} aria-label="Price policies">
      <header>
        <h2>Price policies</h2>
        <span className="note">a job takes one, and may bend it</span>
        <button
          className={`act ${styles.end}`}
          onClick={() => {
            const id = newId();
            tell(
              save({
                all: [
                  ...data.all,
                  {
                    ...policy,
                    id,
                    name: freeName(`${policy.name}, copy`, (name) => data.all.some((p) => p.name === name)),
                  },
                ],
              }).then(() => setShown(id)),
            );
          }}
        >
          Copy as a new policy
        </button>
      </header>
      <div className="pad">
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
        <div className={styles.pair}>
          <Choice
            label="Policy"
            value={policy.id}
            options={data.all.map((p) => [p.id, p.id === data.usual ? `${p.name} (new jobs)` : p.name] as const)}
            onChoose={setShown}
          />
          <Field
            key={`n${policy.id}`}
            label="Name"
            value={policy.name}
            onKeep={(name) => saveOne({ name: name.trim() })}
          />
        </div>
        <Choice
          label="Priced by"
          value={policy.terms.basis}
          options={bases}
          onChoose={(basis) => tell(held.set("basis", basis))}
        />
        {policy.id !== data.usual && (
          <p>
            <button className="act" onClick={() => tell(save({ usual: policy.id }))}>
              New jobs take this one
            </button>{" "}
            <button
              className="act"
              onClick={() => tell(save({ all: data.all.filter((p) => p.id !== policy.id) }).then(() => setShown("")))}
            >
              Remove it
            </button>
          </p>
        )}
      </div>
      <div key={policy.id} className={priceStyles.columns}>
        <div>
          <OnCost held={held} currency={currency} />
          <GuardTerms held={held} />
        </div>
        <div>
          <StepTerms held={held} currency={currency} />
        </div>
        <div>
          <TaxTerms held={held} />
          <h3 className={styles.under}>Payment steps</h3>
          <PaymentTerms held={held} currency={currency} />
        </div>
      </div>
    </section>
  );
}
