import { useState } from "react";
import { type Schemas, sendFile } from "../api/client";
import { Check, Choice, EntryAt, Rows, Text, unitOptions } from "./fields";
import { useEditing } from "./useEntry";

export function RoleForm() {
  return (
    <>
      <div className="two">
        <Text label="Wage" path="wage" unit="per h" />
        <Text label="Sell rate" path="sellRate" unit="per h" optional />
      </div>
      <Rows
        title="Burden"
        path="burden"
        add="Add a burden item"
        blank={() => ({ name: "New item", percent: "0", perHour: null, followsPremiums: true })}
      >
        {(path) => <BurdenRow path={path} />}
      </Rows>
      <Rows
        title="Premiums"
        path="premiums"
        add="Add a premium"
        blank={() => ({ name: "Overtime", multiplier: "1.5", sharePercent: "0" })}
      >
        {(path) => (
          <>
            <Text label="Name" path={`${path}.name`} />
            <Text label="Times the wage" path={`${path}.multiplier`} />
            <Text label="Of the hours" path={`${path}.sharePercent`} unit="%" />
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
      <Text label="Name" path={`${path}.name`} />
      <Text label="Amount" path={`${path}.${percent ? "percent" : "perHour"}`} />
      <label className="field">
        <span>Of</span>
        <select
          value={percent ? "percent" : "perHour"}
          onChange={(e) => {
            const amount = item.percent ?? item.perHour;
            const byPercent = e.target.value === "percent";
            void set(path, { ...item, percent: byPercent ? amount : null, perHour: byPercent ? null : amount });
          }}
        >
          <option value="percent">% of wage</option>
          <option value="perHour">per hour</option>
        </select>
      </label>
      <Check label="Follows premiums" path={`${path}.followsPremiums`} />
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
        <Choice label="Unit of use" path="unit" options={unitOptions} />
        <Text label="Waste" path="wastePercent" unit="%" />
      </div>
      <Rows
        title="Packs"
        path="packs"
        add="Add a pack"
        least={1}
        blank={() => ({ name: "pack", size: "1", price: "0" })}
      >
        {(path) => (
          <>
            <Text label="Pack" path={`${path}.name`} />
            <Text label={`Holds, in ${material.unit}`} path={`${path}.size`} />
            <Text label="Price" path={`${path}.price`} />
          </>
        )}
      </Rows>
      <h3>Coverage</h3>
      <div className="two">
        <Text
          label="First coat"
          path="coverage"
          optional
          hint="like 360 ft² per gal; none where an assembly says how much"
        />
        <Text label="Later coats" path="laterCoverage" optional hint="none: the same" />
        <Text label="Solids by volume" path="solidsPercent" unit="%" optional />
        <Text label="Dry film of a coat" path="dryFilm" hint="like 1.5 mil or 40 µm; bounds the coverage" />
        <Text label="Density" path="density" optional hint="like 1.6 t per m³" />
      </div>
      <h3>Ordering</h3>
      <div className="two">
        <Text label="Least order" path="rules.minimum" unit={material.unit} />
        <Text label="Delivery" path="rules.delivery" hint="once per supplier and job" />
        <Text label="Spare to leave" path="rules.sparePercent" unit="%" />
      </div>
      <Check label="Taxed" path="taxed" /> <Check label="Prices include tax" path="priceIncludesTax" />
      <Rows
        title="Rolls, sheets, stock lengths"
        path="stock"
        add="Add a size"
        blank={() => ({ name: "roll", wide: "4 ft", long: "50 ft" })}
      >
        {(path) => (
          <>
            <Text label="Name" path={`${path}.name`} />
            <Text label="Width" path={`${path}.wide`} />
            <Text label="Length" path={`${path}.long`} />
          </>
        )}
      </Rows>
      <h3>Where it comes from</h3>
      <div className="two">
        <Text label="Brand" path="brand" />
        <Text label="Category" path="category" />
        <Text label="Supplier" path="supplier" />
        <Text label="Code" path="code" />
        <Text label="Usual colour" path="colour" />
      </div>
      <Picture hash={material.picture} />
    </>
  );
}

function Picture({ hash }: { hash: string }) {
  const { view, set } = useEditing();
  const [wrong, setWrong] = useState("");
  return (
    <div className="field picture">
      {hash && <img src={`/api/files/${hash}`} alt={`Picture of ${view.entry.name}`} />}
      <label>
        Picture: PNG, JPEG or WebP, up to 20 MB{" "}
        <input
          type="file"
          accept="image/png,image/jpeg,image/webp"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (!file) return;
            sendFile<{ hash: string }>("/api/files", file)
              .then((kept) => set("picture", kept.hash))
              .then(
                () => setWrong(""),
                (error: Error) => setWrong(error.message),
              );
          }}
        />
      </label>
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
      <Text label="Cost" path="cost" />
      <Choice
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
      <Text label={lump ? "Price in all, per work item and job" : "Price per unit"} path="price" />
      <Choice label="Unit" path="unit" options={unitOptions} />
      <Check label="Lump sum" path="lumpSum" />
    </div>
  );
}

export function ConditionForm() {
  return (
    <>
      <Text label="Reason" path="reason" rows={2} />
      <div className="two">
        <Text label="Labour times" path="labour" hint="crew-tied equipment follows the labour" />
        <Text label="Other equipment times" path="equipment" />
        <Text label="Material times" path="material" />
      </div>
    </>
  );
}

export function SurfaceForm() {
  return (
    <div className="two">
      <Text label="Treated, times measured" path="treated" hint="1.3 for profiled sheet, 2 for both faces" />
      <Text label="Coverage there, times the usual" path="coverage" hint="0.8 for a thirsty surface" />
    </div>
  );
}

export function SetUpForm() {
  return (
    <>
      <EntryAt label="Role" kinds={["role"]} path="role" />
      <div className="two">
        <Text label="Set up and clear away" path="setUpMinutes" unit="min a person and crew day" />
        <Choice
          label="The way is gone"
          path="per"
          options={[
            ["crewDay", "each crew day"],
            ["visit", "each visit"],
          ]}
        />
        <Text label="Distance, there and back" path="distance" />
        <Choice
          label="In"
          path="distanceUnit"
          options={[
            ["mile", "miles"],
            ["kilometre", "kilometres"],
          ]}
        />
        <Text label="Time, there and back" path="travelMinutes" unit="min a person" />
        <Text label="Vehicle" path="perDistance" unit="per mile or km" />
      </div>
    </>
  );
}

export function TextForm() {
  return (
    <>
      <Choice
        label="For"
        path="use"
        options={[
          ["scope", "scope wording"],
          ["exclusions", "exclusions"],
          ["terms", "terms"],
          ["letter", "letter"],
          ["whatToExpect", "what to expect"],
        ]}
      />
      <Text label="Text" path="body" rows={10} />
    </>
  );
}
