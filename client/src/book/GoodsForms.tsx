import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ask } from "../api/queries";
import { Words } from "../controls/Words";
import { type Schemas } from "../api/client";
import { CheckOf, ChoiceOf, EntryAt, EntryChoice, Rows, TextOf } from "./fields";
import { at, useEditing } from "./useEntry";
import { Choice } from "../controls/Choice";
import { FileChoice } from "../controls/FileChoice";
import { unitOptions } from "../controls/units";
import styles from "./book.module.css";
import { change } from "../api/changes";

export function RoleForm() {
  return (
    <>
      <div className="two">
        <TextOf label="Wage" path="wage" unit="per h" />
        <TextOf label="Sell rate" path="sellRate" unit="per h" optional />
      </div>
      <Rows
        title="Burden"
        path="burden"
        add="Add a burden item"
        blank={() => ({
          name: "",
          percent: "" as string | null,
          perHour: null as string | null,
          followsPremiums: true,
        })}
      >
        {(path) => <BurdenRow path={path} />}
      </Rows>
      <Rows
        title="Premiums"
        path="premiums"
        add="Add a premium"
        blank={() => ({ name: "", multiplier: "", sharePercent: "", soldOn: false })}
      >
        {(path) => (
          <>
            <TextOf label="Name" path={`${path}.name`} />
            <TextOf label="Times the wage" path={`${path}.multiplier`} />
            <TextOf label="Of the hours" path={`${path}.sharePercent`} unit="%" />
            <CheckOf label="Sold on" path={`${path}.soldOn`} hint="it raises the sell rate, too" />
          </>
        )}
      </Rows>
    </>
  );
}

function BurdenRow({ path }: { path: string }) {
  const { view, set } = useEditing();
  const index = Number(/\[(\d+)\]/.exec(path)![1]);
  const item = (view.entry as Schemas["BookEntryLabourRole"]).burden[index]!;
  const percent = item.percent !== null;
  return (
    <>
      <TextOf label="Name" path={`${path}.name`} />
      <TextOf label="Amount" path={`${path}.${percent ? "percent" : "perHour"}`} />
      <Choice
        label="Of"
        value={percent ? "percent" : "perHour"}
        options={[
          ["percent", "% of wage"],
          ["perHour", "per hour"],
        ]}
        onChoose={(now) => {
          const amount = item.percent ?? item.perHour;
          const byPercent = now === "percent";
          void set(path, { ...item, percent: byPercent ? amount : null, perHour: byPercent ? null : amount });
        }}
      />
      <CheckOf label="Follows premiums" path={`${path}.followsPremiums`} />
    </>
  );
}

export function MaterialForm() {
  const { view } = useEditing();
  const material = view.entry as Schemas["BookEntryMaterial"];
  return (
    <>
      {view.doubt && (
        <p className="error" role="status">
          {view.doubt}
        </p>
      )}
      <div className="two">
        <ChoiceOf label="Unit of use" path="unit" options={unitOptions("volume", "mass", "area", "length")} />
        <TextOf label="Waste" path="wastePercent" unit="%" />
      </div>
      {!material.mix && (
        <Rows title="Packs" path="packs" add="Add a pack" least={1} blank={() => ({ name: "", size: "", price: "" })}>
          {(path) => (
            <>
              <TextOf label="Pack" path={`${path}.name`} />
              <TextOf label={`Holds, in ${material.unit}`} path={`${path}.size`} />
              <TextOf label="Price" path={`${path}.price`} />
            </>
          )}
        </Rows>
      )}
      {material.packs.length === 0 && <MixFields />}
      <h3>Coverage</h3>
      <div className="two">
        <TextOf
          label="First coat"
          path="coverage"
          optional
          hint="like 360 ft² per gal; none where an assembly says how much"
        />
        <TextOf label="Later coats" path="laterCoverage" optional hint="none: the same" />
        <TextOf label="Solids by volume" path="solidsPercent" unit="%" optional />
        <TextOf label="Dry film of a coat" path="dryFilm" hint="like 1.5 mil or 40 µm; bounds the coverage" />
        {material.coverageWanted && (
          <CheckOf label="Waits for its coverage" path="coverageWanted" hint="no: an assembly says how much" />
        )}
        <TextOf label="Density" path="density" optional hint="like 1.6 t per m³" />
      </div>
      <h3>Ordering</h3>
      <div className="two">
        <TextOf label="Least order" path="rules.minimum" unit={material.unit} />
        <TextOf label="Delivery" path="rules.delivery" hint="once per supplier and job" />
        <TextOf label="Spare to leave" path="rules.sparePercent" unit="%" />
      </div>
      <CheckOf label="Taxed" path="taxed" /> <CheckOf label="Prices include tax" path="priceIncludesTax" />
      <TextOf label="Where it is not taxed, why" path="taxExempt" optional />
      <Rows
        title="Rolls, sheets, stock lengths"
        path="stock"
        add="Add a size"
        blank={() => ({ name: "", wide: "", long: "" })}
        needs={["name", "long"]}
      >
        {(path) => (
          <>
            <TextOf label="Name" path={`${path}.name`} />
            <TextOf label="Width" path={`${path}.wide`} />
            <TextOf label="Length" path={`${path}.long`} />
          </>
        )}
      </Rows>
      <h3>Where it comes from</h3>
      <div className="two">
        <TextOf label="Brand" path="brand" />
        <TextOf label="Category" path="category" />
        <TextOf label="Supplier" path="supplier" />
        <TextOf label="Code" path="code" />
        <TextOf label="Usual colour" path="colour" />
      </div>
      <Picture hash={material.picture} />
    </>
  );
}

/** What is mixed on the spot: a base, and what is added to it. What is spread is the mixed, and what is bought its parts. */
function MixFields() {
  const { view, set } = useEditing();
  const { mix, unit } = view.entry as Schemas["BookEntryMaterial"];
  return (
    <>
      <h3>Mixed on the spot</h3>
      <p className="note">
        Coverage and waste are of the mixed; what is bought is its parts. Say how much goes in as 35 %, or as 0.2 kg per{" "}
        {unit} of the base. What is bought as nothing is free, like water, and is told to the crew.
      </p>
      <div className="two">
        <EntryChoice
          label="Base"
          kinds={["material"]}
          value={mix?.base ?? null}
          onChoose={(base) => set("mix", base && { base, parts: mix?.parts ?? [] })}
          none={!mix || mix.parts.length === 0}
        />
      </div>
      {mix && (
        <Rows
          title="Added"
          path="mix.parts"
          add="Add a part"
          blank={() => ({ material: null as string | null, name: "", amount: "", ofMixed: false })}
          needs={["amount"]}
        >
          {(path) => <MixRow path={path} />}
        </Rows>
      )}
    </>
  );
}

function MixRow({ path }: { path: string }) {
  const { view } = useEditing();
  const free = !at(view.entry, `${path}.material`);
  return (
    <>
      <EntryAt label="Bought as" kinds={["material"]} path={`${path}.material`} none />
      {free && <TextOf label="Name, where it is free" path={`${path}.name`} />}
      <TextOf label="How much" path={`${path}.amount`} />
      <CheckOf label="Of the mixed, not of the base" path={`${path}.ofMixed`} />
    </>
  );
}

function Picture({ hash }: { hash: string }) {
  const { view, set } = useEditing();
  const [wrong, setWrong] = useState("");
  return (
    <div className={styles.picture}>
      {hash && <img src={`/api/files/${hash}`} alt={`Picture of ${view.entry.name}`} />}
      <FileChoice
        label="Picture: PNG, JPEG or WebP, up to 20 MB"
        accept="image/png,image/jpeg,image/webp"
        onFile={(file) => {
          change
            .keepFile(file)
            .then((kept) => set("picture", kept.hash))
            .then(
              () => setWrong(""),
              (error: Error) => setWrong(error.message),
            );
        }}
      />
      {hash && (
        <button className="link" onClick={() => void set("picture", "")}>
          Take the picture away
        </button>
      )}
      {wrong && (
        <span className="error" role="alert">
          {wrong}
        </span>
      )}
    </div>
  );
}

export function EquipmentForm() {
  return (
    <div className="two">
      <TextOf label="Cost" path="cost" />
      <ChoiceOf
        label="Per"
        path="per"
        options={[
          ["hour", "hour"],
          ["day", "day, rounded up once per work item and job"],
          ["visit", "visit, rounded up once per work item and job"],
        ]}
      />
    </div>
  );
}

export function SubcontractForm() {
  const { view } = useEditing();
  const lump = (view.entry as Schemas["BookEntrySubcontract"]).lumpSum;
  return (
    <div className="two">
      <TextOf label={lump ? "Price in all, per work item and job" : "Price per unit"} path="price" />
      <ChoiceOf label="Unit" path="unit" options={unitOptions("area", "length", "volume", "mass", "count")} />
      <CheckOf label="Lump sum" path="lumpSum" />
    </div>
  );
}

export function ConditionForm() {
  return (
    <>
      <TextOf label="Reason" path="reason" rows={2} />
      <div className="two">
        <TextOf label="Labour times" path="labour" hint="crew-tied equipment follows the labour" />
        <TextOf label="Other equipment times" path="equipment" />
        <TextOf label="Material times" path="material" />
      </div>
    </>
  );
}

export function SurfaceForm() {
  return (
    <div className="two">
      <TextOf label="Treated, times measured" path="treated" hint="1.3 for profiled sheet, 2 for both faces" />
      <TextOf label="Coverage there, times the usual" path="coverage" hint="0.8 for a thirsty surface" />
    </div>
  );
}

export function SetUpForm() {
  return (
    <>
      <EntryAt label="Role" kinds={["role"]} path="role" />
      <div className="two">
        <TextOf label="Set up and clear away" path="setUpMinutes" unit="min a person and crew day" />
        <ChoiceOf
          label="The way is gone"
          path="per"
          options={[
            ["crewDay", "each crew day"],
            ["visit", "each visit"],
          ]}
        />
        <TextOf label="Distance, there and back" path="distance" />
        <ChoiceOf
          label="In"
          path="distanceUnit"
          options={[
            ["mile", "miles"],
            ["kilometre", "kilometres"],
          ]}
        />
        <TextOf label="Time, there and back" path="travelMinutes" unit="min a person" />
        <TextOf label="Vehicle" path="perDistance" unit="per mile or km" />
      </div>
    </>
  );
}

export function TextForm() {
  const { view, set } = useEditing();
  const { data: names } = useQuery(ask.figureNames);
  const { body } = view.entry as Schemas["BookEntryBookText"];
  return (
    <>
      <ChoiceOf
        label="For"
        path="use"
        options={[
          ["scope", "scope wording"],
          ["exclusions", "exclusions"],
          ["terms", "terms"],
          ["letter", "letter"],
          ["whatToExpect", "what to expect"],
          ["about", "about the firm"],
          ["cover", "cover"],
          ["other", "any block"],
        ]}
      />
      <Words label="Text" value={body} names={names ?? []} onKeep={(text) => set("body", text)} />
    </>
  );
}
