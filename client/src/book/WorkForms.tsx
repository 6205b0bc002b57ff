import { useMeasures } from "../controls/useMeasures";
import { CheckOf, ChoiceOf, EntryAt, EntryChoice, MeasureChoice, Rows, TextOf, useNamed } from "./fields";
import { useEditing } from "./useEntry";
import type { Schemas } from "../api/client";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { countedUnits, unitsOf } from "../controls/units";
import styles from "./book.module.css";

/** Rates typed as people say them, one for each number of coats. */
const breakKinds = [
  ["none", "none: one price"],
  ["whole", "the whole quantity at the price reached"],
  ["slices", "each slice at its own price"],
  ["packages", "packages, and each further one"],
] as const;

export function RateForm() {
  const { view } = useEditing();
  const rate = view.entry as Schemas["BookEntryProductionRate"];
  return (
    <>
      <div className="two">
        <MeasureChoice key={view.entry.version} />
        <EntryAt label="Role" kinds={["role"]} path="role" />
      </div>
      <Rows
        title="Pace"
        path="paces"
        add="Add a number of coats"
        least={1}
        blank={() => ({ coats: Math.max(0, ...rate.paces.map((p) => p.coats)) + 1, pace: "" })}
      >
        {(path) => (
          <>
            <TextOf label="Coats" path={`${path}.coats`} whole />
            <TextOf
              label="For all coats together"
              path={`${path}.pace`}
              hint="like 125 ft² per h, or 0.3 h per 100 m²"
            />
          </>
        )}
      </Rows>
      <div className="two">
        <EntryAt label="Usual product" kinds={["material"]} path="product" none />
      </div>
      <WorkFields />
    </>
  );
}

export function PriceOnlyForm() {
  const { view } = useEditing();
  const item = view.entry as Schemas["BookEntryPriceOnlyItem"];
  const { kindOf } = useMeasures();
  const packages = item.breakKind === "packages";
  const change = useEditing().change;
  return (
    <>
      <div className="two">
        <MeasureChoice key={view.entry.version} />
        <ChoiceOf label="Unit" path="unit" options={unitsOf(kindOf(item.measure))} />
        <TextOf label={packages ? "Price of each further one" : "Price per unit"} path="price" />
        <TextOf label="Least price in a job" path="minimum" />
      </div>
      <Choice
        label="Price breaks"
        value={item.breakKind}
        options={breakKinds}
        onChoose={(kind) =>
          void change((entry) => {
            const next = entry as typeof item;
            next.breakKind = kind;
            next.breaks =
              next.breakKind === "none" ? [] : next.breaks.length ? next.breaks : [{ from: "10", price: next.price }];
            return next;
          })
        }
      />
      {item.breakKind !== "none" && (
        <Rows title="Breaks" path="breaks" add="Add a break" least={1} blank={() => ({ from: "", price: "" })}>
          {(path) => (
            <>
              <TextOf label={packages ? "Up to" : "From"} path={`${path}.from`} />
              <TextOf label={packages ? "In all" : "Price"} path={`${path}.price`} />
            </>
          )}
        </Rows>
      )}
      {item.breakKind === "whole" && (
        <CheckOf label="Never more than the next break would cost" path="neverMoreThanNext" />
      )}
      <CheckOf label="Taxed" path="taxable" />
      <WorkFields />
    </>
  );
}

/** What every entry of work has: wording, difficulty, drying, what goes with it. */
export function WorkFields() {
  const { view, set } = useEditing();
  const named = useNamed();
  const measures = useMeasures();
  const entry = view.entry as Schemas["BookEntryProductionRate"];
  return (
    <>
      <h3>What people read</h3>
      <TextOf label="Customer reads" path="wording" rows={2} />
      <div className="two">
        <TextOf label="Crew reads" path="crewNote" rows={2} />
        <TextOf label="Note for the customer" path="customerNote" rows={2} />
      </div>
      <CheckOf label="Hidden from the customer" path="hidden" hint="its price is spread over the other lines" />
      <Rows title="Difficulty" path="levels" add="Add a level of difficulty" blank={() => ({ name: "", factor: "" })}>
        {(path) => (
          <>
            <TextOf label="Level" path={`${path}.name`} />
            <TextOf label="Times" path={`${path}.factor`} />
          </>
        )}
      </Rows>
      <Rows
        title="Build-up, where it comes back"
        path="buildUp"
        add="Add a row of build-up"
        blank={() => ({ times: "", factor: "" })}
      >
        {(path) => (
          <>
            <TextOf label="From so many times a year" path={`${path}.times`} whole />
            <TextOf label="Hours ×" path={`${path}.factor`} />
          </>
        )}
      </Rows>
      <div className="two">
        <EntryAt label="Usual surface" kinds={["surface"]} path="surface" none />
        <TextOf label="Drying after each coat" path="dryingHours" unit="h" />
        <TextOf label="Round hours of a line up to" path="step" unit="h" optional />
        {measures.kindOf(entry.measure) !== "count" && (
          <ChoiceOf
            label="Counted in"
            path="countedIn"
            options={countedUnits(measures.kindOf(entry.measure))}
            none="the job's own unit"
          />
        )}
        <ChoiceOf
          label="Where a place has not its measure, led by"
          path="whereNone"
          options={measures.like(entry.measure)}
          none="nothing else"
        />
      </div>
      <SoldAndTaxed />
      <section className={styles.rowsof} aria-label="Offered with it">
        <h3>Offered with it</h3>
        {entry.accessories.map((id) => (
          <p key={id} className={styles.onerow}>
            <span>{named.find((n) => n.id === id)?.name ?? "an entry that is not in the Book any more"}</span>
            <button
              className={`link ${styles.warn}`}
              onClick={() =>
                void set(
                  "accessories",
                  entry.accessories.filter((a) => a !== id),
                )
              }
            >
              Take away
            </button>
          </p>
        ))}
        <EntryChoice
          key={entry.accessories.length}
          label="Offer another"
          kinds={["rate", "assembly", "priceOnly"]}
          value={null}
          onChoose={async (id) => {
            if (id) await set("accessories", [...new Set([...entry.accessories, id])]);
          }}
        />
      </section>
    </>
  );
}

/** What a unit of it is sold at, where a job goes by unit prices; and why it is not taxed, where it is not. */
function SoldAndTaxed() {
  const { view, set } = useEditing();
  const { kindOf } = useMeasures();
  const entry = view.entry as Schemas["BookEntryProductionRate"];
  const units = unitsOf(kindOf(entry.measure));
  return (
    <div className="two">
      {view.entry.kind !== "priceOnly" && (
        <div>
          <Check
            on={entry.unitPrice != null}
            onTick={(on) => void set("unitPrice", on ? { price: "0", unit: entry.countedIn ?? units[0]![0] } : null)}
          >
            Has a unit price, for jobs that go by those
          </Check>
          {entry.unitPrice && (
            <>
              <TextOf label="Unit price" path="unitPrice.price" />
              <ChoiceOf label="For each" path="unitPrice.unit" options={units} />
            </>
          )}
        </div>
      )}
      <TextOf label="Exempt from tax, because" path="taxExempt" hint="empty where it is taxed" optional />
    </div>
  );
}
