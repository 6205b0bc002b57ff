import { MeasureChoice, EntryChoice, Check, Choice, EntryAt, Rows, Text, unitOptions, useNamed } from "./fields";
import { useEditing } from "./useEntry";
import type { Schemas } from "../api/client";

/** Rates typed as people say them, one for each number of coats. */
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
        blank={() => ({ coats: Math.max(...rate.paces.map((p) => p.coats)) + 1, pace: rate.paces.at(-1)!.pace })}
      >
        {(path) => (
          <>
            <Text label="Coats" path={`${path}.coats`} whole />
            <Text label="For all coats together" path={`${path}.pace`} hint="like 125 ft² per h, or 0.3 h per 100 m²" />
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
  const packages = item.breakKind === "packages";
  const change = useEditing().change;
  return (
    <>
      <div className="two">
        <MeasureChoice key={view.entry.version} />
        <Choice label="Unit" path="unit" options={unitOptions} />
        <Text label={packages ? "Price of each further one" : "Price per unit"} path="price" />
        <Text label="Least price in a job" path="minimum" />
      </div>
      <label className="field">
        <span>Price breaks</span>
        <select
          value={item.breakKind}
          onChange={(e) =>
            void change((entry) => {
              const next = entry as typeof item;
              next.breakKind = e.target.value as typeof item.breakKind;
              next.breaks =
                next.breakKind === "none" ? [] : next.breaks.length ? next.breaks : [{ from: "10", price: next.price }];
              return next;
            })
          }
        >
          <option value="none">none: one price</option>
          <option value="whole">the whole quantity at the price reached</option>
          <option value="slices">each slice at its own price</option>
          <option value="packages">packages, and each further one</option>
        </select>
      </label>
      {item.breakKind !== "none" && (
        <Rows
          title="Breaks"
          path="breaks"
          add="Add a break"
          least={1}
          blank={() => ({ from: `${item.breaks.at(-1)?.from ?? "1"}0`, price: item.price })}
        >
          {(path) => (
            <>
              <Text label={packages ? "Up to" : "From"} path={`${path}.from`} />
              <Text label={packages ? "In all" : "Price"} path={`${path}.price`} />
            </>
          )}
        </Rows>
      )}
      {item.breakKind === "whole" && (
        <Check label="Never more than the next break would cost" path="neverMoreThanNext" />
      )}
      <Check label="Taxed" path="taxable" />
      <WorkFields />
    </>
  );
}

/** What every entry of work has: wording, difficulty, drying, what goes with it. */
export function WorkFields() {
  const { view, set } = useEditing();
  const named = useNamed();
  const entry = view.entry as Schemas["BookEntryProductionRate"];
  return (
    <>
      <h3>What people read</h3>
      <Text label="Customer reads" path="wording" rows={2} />
      <div className="two">
        <Text label="Crew reads" path="crewNote" rows={2} />
        <Text label="Note for the customer" path="customerNote" rows={2} />
      </div>
      <Check label="Hidden from the customer" path="hidden" hint="its price is spread over the other lines" />
      {entry.levels.length === 0 && (
        <Rows
          title="Difficulty"
          path="levels"
          add="Add levels of difficulty"
          blank={() => ({ name: "ordinary", factor: "1" })}
        >
          {() => null}
        </Rows>
      )}
      {entry.levels.length > 0 && (
        <Rows
          title="Difficulty"
          path="levels"
          add="Add a level"
          blank={() => ({ name: `level ${entry.levels.length + 1}`, factor: "1" })}
        >
          {(path) => (
            <>
              <Text label="Level" path={`${path}.name`} />
              <Text label="Times" path={`${path}.factor`} />
            </>
          )}
        </Rows>
      )}
      <div className="two">
        <EntryAt label="Usual surface" kinds={["surface"]} path="surface" none />
        <Text label="Drying after each coat" path="dryingHours" unit="h" />
        <Text label="Round hours of a line up to" path="step" unit="h" optional />
      </div>
      <section className="rowsof" aria-label="Offered with it">
        <h3>Offered with it</h3>
        {entry.accessories.map((id) => (
          <p key={id} className="onerow">
            <span>{named.find((n) => n.id === id)?.name ?? "an entry that is not in the Book any more"}</span>
            <button
              className="link warn"
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
