import type { Schemas } from "../api/client";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { typedNumber } from "../controls/typedNumber";
import { unitsOf } from "../controls/units";
import { useMeasures } from "../controls/useMeasures";
import { Rows } from "./Rows";
import type { TermsHeld } from "./TermFields";

type Brackets = NonNullable<Schemas["PricingTerms"]["brackets"]>;

/** One percent on the whole built price by how large the job is: by its price, its hours, or any measure in any unit of its kind. */
export function BracketTerms({ held }: { held: TermsHeld }) {
  const { set } = held;
  const { brackets } = held.terms;
  const measures = useMeasures();
  const keep = (now: Partial<Brackets>) => set("brackets", { ...brackets, ...now });
  function chosen(by: string) {
    if (by === "") return set("brackets", null);
    const own = by === "price" || by === "hours";
    return set("brackets", {
      by: own ? by : "quantity",
      rows: brackets?.rows ?? [{ from: "0", percent: "10" }],
      neverMoreThanNext: brackets?.neverMoreThanNext ?? true,
      ...(own ? {} : { measure: by, unit: measures.unitOf(by) || "each" }),
    });
  }
  const measure = brackets?.by === "quantity" ? brackets.measure! : null;
  return (
    <>
      <Choice
        label="Brackets by size"
        value={measure ?? brackets?.by ?? ""}
        none="none"
        options={[
          ["price", "by the built price"],
          ["hours", "by labour hours"],
          ...measures.options.map(([name, label]) => [name, label, "By a measure"] as const),
        ]}
        onChoose={(by: string) => void chosen(by)}
      />
      {measure && measures.kindOf(measure) !== "count" && (
        <Choice
          label="Its edges are in"
          value={brackets!.unit ?? ""}
          options={unitsOf(measures.kindOf(measure))}
          onChoose={(unit) => void keep({ unit })}
        />
      )}
      {brackets && (
        <>
          <Rows
            one="bracket"
            rows={brackets.rows}
            columns={[
              {
                label: "From",
                unit: measure ? (brackets.unit ?? "") : brackets.by === "hours" ? "h" : undefined,
                text: (r) => r.from,
                with: (r, from) => ({ ...r, from: typedNumber(from) }),
              },
              {
                label: "Percent",
                unit: "%",
                text: (r) => r.percent,
                with: (r, p) => ({ ...r, percent: typedNumber(p) }),
              },
            ]}
            blank={{ from: "", percent: "" }}
            onSave={(rows) => keep({ rows })}
          />
          <Check on={brackets.neverMoreThanNext} onTick={(on) => void keep({ neverMoreThanNext: on })}>
            Never more than the next row
          </Check>
        </>
      )}
    </>
  );
}
