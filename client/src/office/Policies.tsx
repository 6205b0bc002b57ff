import { useQuery, useQueryClient } from "@tanstack/react-query";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { PaymentTerms } from "../price/PaymentTerms";
import { type TermsHeld, GuardTerms, OnCost, StepTerms, TaxTerms, bases } from "../price/TermFields";
import { NamedPanel, UsualOrNot, WhichOne, useNamedSet } from "./NamedSet";
import priceStyles from "../price/price.module.css";
import styles from "./office.module.css";

/** The firm's price policies: named sets of terms, one of which new jobs take. */
export function Policies({ currency }: { currency: string }) {
  const queries = useQueryClient();
  const { data } = useQuery(ask.policies);
  const set = useNamedSet(data, (now) =>
    change.policies({ was: data!, now }).finally(() => queries.invalidateQueries(ask.policies)),
  );
  const { one: policy, tell, saveOne } = set;
  if (!policy) return null;
  const held: TermsHeld = {
    terms: policy.terms,
    set: (field, now) => saveOne({ terms: { ...policy.terms, [field]: now } }),
  };
  return (
    <NamedPanel
      name="Price policies"
      note="a job takes one, and may bend it"
      copy="Copy as a new policy"
      set={set}
      head={
        <>
          <div className={styles.pair}>
            <WhichOne label="Policy" set={set} />
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
          <UsualOrNot set={set} />
        </>
      }
    >
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
    </NamedPanel>
  );
}
