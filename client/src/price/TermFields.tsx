import { memo } from "react";
import { newId, type Schemas } from "../api/client";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { exemptions, usualReason } from "../controls/exemptions";
import { typedNumber } from "../controls/typedNumber";
import { BracketTerms } from "./BracketTerms";
import { Rows } from "./Rows";
import styles from "./price.module.css";

type Terms = Schemas["PricingTerms"];
type Basis = Schemas["PriceBasis"];

export interface TermsHeld {
  terms: Terms;
  /** Sets one term; rejects with what is wrong with it. */
  set: (field: keyof Terms, now: unknown) => Promise<void>;
  /** Where a job is not as its policy, what that says. */
  bent?: ReadonlyMap<string, string>;
  /** Lets a term fall back to the policy. */
  fall?: (field: string) => void;
  /** The term that a link asks for. */
  focus?: string | null;
}

export const bases: readonly (readonly [Basis, string])[] = [
  ["markup", "cost plus: markup by class"],
  ["targetMargin", "target margin"],
  ["sellRate", "charge rate per hour"],
  ["unitPrice", "unit prices"],
  ["fixed", "fixed price"],
];

/** Says that a term is not as its policy, and lets it fall back. */
export function Bent({ held, field }: { held: TermsHeld; field: string }) {
  const policy = held.bent?.get(field);
  if (policy === undefined) return null;
  return (
    <span className={styles.bent}>
      ≠ policy: {policy}{" "}
      <button
        type="button"
        className="act"
        aria-label={`Fall back to the policy, ${field}`}
        onClick={() => held.fall?.(field)}
      >
        Fall back
      </button>
    </span>
  );
}

function One({ held, field, label, unit }: { held: TermsHeld; field: keyof Terms; label: string; unit: string }) {
  const value = held.terms[field] as string | null | undefined;
  return (
    <li className={styles.one}>
      <Field
        label={label}
        row
        unit={unit}
        value={value ?? ""}
        focus={held.focus === field}
        onKeep={(text) => held.set(field, text.trim() === "" && field === "sellRate" ? null : typedNumber(text))}
      />
      <Bent held={held} field={field} />
    </li>
  );
}

/** What the basis puts on the cost. */
export const OnCost = memo(function OnCost({ held, currency }: { held: TermsHeld; currency: string }) {
  const { terms } = held;
  const percent = (field: keyof Terms, label: string) => (
    <One key={field} held={held} field={field} label={label} unit="%" />
  );
  const money = (field: keyof Terms, label: string) => (
    <One key={field} held={held} field={field} label={label} unit={currency} />
  );
  const byClass = [
    percent("materialMarkup", "Markup on materials"),
    percent("equipmentMarkup", "Markup on equipment"),
    percent("subcontractMarkup", "Markup on subcontracts"),
    percent("fixedMarkup", "Markup on charges"),
  ];
  const markups = [percent("labourMarkup", "Markup on labour"), ...byClass];
  const of: Record<Basis, React.ReactNode> = {
    markup: markups,
    targetMargin: percent("targetMargin", "Target margin"),
    sellRate: [money("sellRate", "Charge rate, roles without one"), ...byClass],
    unitPrice: null,
    fixed: null,
  };
  return (
    <ul className="rows">
      {terms.basis === "fixed" && (
        <>
          {money("fixedPrice", "Fixed price")}
          <li className={styles.one}>
            <Choice
              label="Pieces are reckoned by"
              row
              value={terms.usualBasis}
              options={bases.filter(([b]) => b !== "fixed")}
              onChoose={(now) => void held.set("usualBasis", now)}
            />
            <Bent held={held} field="usualBasis" />
          </li>
        </>
      )}
      {of[terms.basis === "fixed" ? terms.usualBasis : terms.basis]}
      {percent("overhead", "Overhead")}
      {percent("contingency", "Contingency")}
      {terms.basis === "markup" && percent("profit", "Profit")}
      <li className={styles.one}>
        <Choice
          label="Materials cost"
          row
          value={terms.materialCost}
          options={[
            ["purchase", "packs bought"],
            ["need", "exact need"],
          ]}
          onChoose={(now) => void held.set("materialCost", now)}
        />
        <Bent held={held} field="materialCost" />
      </li>
      <li>
        <Check on={terms.showContingency} onTick={(on) => void held.set("showContingency", on)}>
          Customer sees contingency as an amount of its own
        </Check>
        <Bent held={held} field="showContingency" />
      </li>
    </ul>
  );
});

/** Brackets, least charges, fees and rounding. */
export const StepTerms = memo(function StepTerms({ held, currency }: { held: TermsHeld; currency: string }) {
  const { terms, set } = held;
  const money = (field: keyof Terms, label: string) => <One held={held} field={field} label={label} unit={currency} />;
  return (
    <>
      <ul className="rows">
        {money("leastPlace", "Least, a line at a place")}
        {money("leastLine", "Least, a line")}
        {money("leastJob", "Least, the job")}
      </ul>
      <div className="pad">
        <BracketTerms held={held} />
        <Bent held={held} field="brackets" />
        <h3>Costs that are a percent of the price</h3>
        <Rows
          one="fee"
          rows={terms.fees}
          columns={[
            { label: "Name", wide: true, text: (f) => f.name, with: (f, name) => ({ ...f, name }) },
            {
              label: "Percent",
              unit: "%",
              text: (f) => f.percent,
              with: (f, p) => ({ ...f, percent: typedNumber(p) }),
            },
          ]}
          blank={{ name: "", percent: "", onTotal: false }}
          more={(fee, setFee) => (
            <Check on={fee.onTotal} onTick={(onTotal) => void setFee({ ...fee, onTotal })}>
              of what the customer pays, tax and all
            </Check>
          )}
          onSave={(fees) => set("fees", fees)}
        />
        <Bent held={held} field="fees" />
        <h3>Rounding</h3>
        <div className={styles.pair}>
          <Field
            label="Round to"
            value={terms.rounding?.to ?? ""}
            hint="empty for none"
            onKeep={(text) =>
              set(
                "rounding",
                text.trim() === ""
                  ? null
                  : {
                      to: typedNumber(text),
                      up: terms.rounding?.up ?? false,
                      afterTax: terms.rounding?.afterTax ?? false,
                    },
              )
            }
          />
          {terms.rounding && (
            <>
              <Check on={terms.rounding.up} onTick={(up) => void set("rounding", { ...terms.rounding, up })}>
                always up
              </Check>
              <Check
                on={terms.rounding.afterTax}
                onTick={(afterTax) => void set("rounding", { ...terms.rounding, afterTax })}
              >
                after tax
              </Check>
            </>
          )}
        </div>
        <Bent held={held} field="rounding" />
      </div>
    </>
  );
});

/** Discounts, and the adjustment: of one job. */
export const DiscountTerms = memo(function DiscountTerms({ held, currency }: { held: TermsHeld; currency: string }) {
  const { terms, set } = held;
  return (
    <div className="pad">
      <Rows
        one="discount"
        rows={terms.discounts}
        columns={[
          { label: "Reason", wide: true, text: (d) => d.reason, with: (d, reason) => ({ ...d, reason }) },
          {
            label: "5 % or money",
            text: (d) => (d.percent != null ? `${d.percent} %` : (d.amount ?? "")),
            with: (d, text) =>
              text.trimEnd().endsWith("%")
                ? { ...d, percent: typedNumber(text.trimEnd().slice(0, -1)), amount: null }
                : { ...d, percent: null, amount: typedNumber(text) },
          },
        ]}
        blank={{ reason: "", percent: null, amount: "" } as Schemas["Discount"]}
        onSave={(discounts) => set("discounts", discounts)}
      />
      <Check on={terms.raiseList} onTick={(on) => void set("raiseList", on)}>
        Raise the list price so that the discounts leave the intended price
      </Check>
      {terms.raiseList && (
        <p className={styles.warn} role="note">
          The customer reads a higher list price than the work would otherwise have. In many places that is not allowed;
          it is kept in the job’s history who chose it.
        </p>
      )}
      <div className={styles.pair}>
        <Field
          label="Adjustment"
          unit={currency}
          value={terms.adjustment}
          onKeep={(text) => set("adjustment", typedNumber(text) || "0")}
        />
        <Field label="Why" value={terms.adjustmentReason} onKeep={(text) => set("adjustmentReason", text.trim())} />
      </div>
    </div>
  );
});

const onWords: readonly (readonly [Schemas["TaxOn"], string])[] = [
  ["labour", "labour"],
  ["material", "materials"],
  ["equipment", "equipment"],
  ["subcontract", "subcontracts"],
  ["fixed", "fixed charges"],
  ["priceOnly", "price-only items"],
];

interface TaxProps {
  held: TermsHeld;
  /** Whether they are of a job, and not of a policy. */
  ofJob?: boolean;
  /** Why the customer is charged none, as their own row says it. */
  ofCustomer?: Schemas["Exemption"] | null;
}

/** The taxes, and why a customer is charged none. */
export const TaxTerms = memo(function TaxTerms({ held, ofJob, ofCustomer }: TaxProps) {
  const { terms, set } = held;
  return (
    <div className="pad">
      <Rows
        one="tax"
        rows={terms.taxes}
        columns={[
          { label: "Name", wide: true, text: (t) => t.name, with: (t, name) => ({ ...t, name }) },
          { label: "Rate", unit: "%", text: (t) => t.rate, with: (t, rate) => ({ ...t, rate: typedNumber(rate) }) },
        ]}
        blank={{ id: newId(), name: "", rate: "", on: onWords.map(([on]) => on), way: "charged" } as Schemas["Tax"]}
        more={(tax, setTax) => (
          <>
            <Choice
              label={`${tax.name} is`}
              value={tax.way}
              options={[
                ["charged", "charged on the price"],
                ["reclaimed", "charged; what we pay comes back"],
                ["paid", "paid by us on purchases"],
              ]}
              onChoose={(way) =>
                void setTax({
                  ...tax,
                  way,
                  on:
                    way === "paid"
                      ? tax.on.filter((o) => ["material", "equipment", "subcontract"].includes(o))
                      : tax.on,
                })
              }
            />
            <div className={styles.ticks} role="group" aria-label={`${tax.name} falls on`}>
              {onWords
                .filter(([on]) => tax.way !== "paid" || ["material", "equipment", "subcontract"].includes(on))
                .map(([on, words]) => (
                  <Check
                    key={on}
                    on={tax.on.includes(on)}
                    onTick={(yes) =>
                      void setTax({ ...tax, on: yes ? [...tax.on, on] : tax.on.filter((o) => o !== on) })
                    }
                  >
                    {words}
                  </Check>
                ))}
            </div>
          </>
        )}
        onSave={(taxes) => set("taxes", taxes)}
      />
      <Bent held={held} field="taxes" />
      {ofJob && (
        <div className={styles.pair}>
          <Choice
            label="Customer’s exemption"
            value={terms.exemption?.kind ?? ""}
            none="none"
            options={exemptions}
            onChoose={(kind) =>
              void set(
                "exemption",
                (kind as string) === "" ? null : { kind, reason: terms.exemption?.reason ?? usualReason },
              )
            }
          />
          {terms.exemption && (
            <Field
              label="Why"
              value={terms.exemption.reason}
              onKeep={(reason) => set("exemption", { ...terms.exemption, reason: reason.trim() })}
            />
          )}
          {ofCustomer &&
            (ofCustomer.kind !== terms.exemption?.kind || ofCustomer.reason !== terms.exemption.reason) && (
              <span className={styles.bent}>
                ≠ the customer’s own: {exemptions.find(([kind]) => kind === ofCustomer.kind)![1]}, {ofCustomer.reason}{" "}
                <button type="button" className="act" onClick={() => void set("exemption", ofCustomer)}>
                  Take it
                </button>
              </span>
            )}
        </div>
      )}
    </div>
  );
});

/** What the firm must earn. */
export const GuardTerms = memo(function GuardTerms({ held }: { held: TermsHeld }) {
  return (
    <ul className="rows">
      <One held={held} field="floorMargin" label="Floor margin" unit="%" />
      <One held={held} field="goalMargin" label="Target margin of the firm" unit="%" />
    </ul>
  );
});
