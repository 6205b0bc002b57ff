import type { Schemas } from "../api/client";
import { Check } from "../controls/Check";
import { typedNumber } from "../controls/typedNumber";
import { Rows } from "./Rows";
import { type TermsHeld, Bent } from "./TermFields";

type Step = Schemas["PaymentStep"];

/** Payment steps: a percent, a sum of money, or (neither) what the others leave. */
export function PaymentTerms({ held, currency }: { held: TermsHeld; currency: string }) {
  return (
    <div className="pad">
      <Rows<Step>
        one="payment step"
        rows={held.terms.payment}
        columns={[
          { label: "When", wide: true, text: (s) => s.when, with: (s, when) => ({ ...s, when }) },
          {
            label: "30 % or money; empty: what is left",
            text: (s) => (s.percent != null ? `${s.percent} %` : (s.amount ?? "")),
            with: (s, typed) => {
              const text = typed.trim();
              if (text === "") return { ...s, percent: null, amount: null };
              return text.endsWith("%")
                ? { ...s, percent: typedNumber(text.slice(0, -1)), amount: null }
                : { ...s, percent: null, amount: typedNumber(text) };
            },
          },
        ]}
        blank={{ when: "", percent: null, amount: null, beforeTax: false }}
        more={(step, set) =>
          step.amount != null && (
            <Check on={step.beforeTax} onTick={(beforeTax) => void set({ ...step, beforeTax })}>
              {currency} before tax
            </Check>
          )
        }
        onSave={(payment) => held.set("payment", payment)}
      />
      <p className="note">
        A percent is of the price. Money is what the customer pays with it. Steps without either share what is left.
      </p>
      <Bent held={held} field="payment" />
    </div>
  );
}
