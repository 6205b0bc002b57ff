import type { Schemas, Work } from "../api/client";
import { inWords } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import { ConditionChecks, Part, Setting, Typed } from "./Settings";
import { useProducts } from "./WorkSettings";
import { answerIn, answered } from "./edits";
import { supplies, useChoices } from "./choices";
import styles from "./work.module.css";

type Own = Schemas["Cell"];

/** What a field is when a cell says nothing of its own. */
const nothing: Partial<Record<keyof Own, unknown>> = { source: "", answers: [], conditions: [] };

/** How a work item is done at one place, or at all of several at once, instead of as the item says. */
export function CellSettings(props: {
  item: Work;
  places: readonly string[];
  owns: ReadonlyMap<string, Own>;
  sheet: Schemas["CellSheetView"];
}) {
  const { item, places, owns, sheet } = props;
  const [open, { job }] = useJob();
  const products = useProducts(item);
  const [roles, surfaces] = [useChoices("role"), useChoices("surface")];
  const many = places.length > 1;
  const times = job.places.some((p) => p.count > 1 && places.includes(p.id));

  const ownAt = <F extends keyof Own>(place: string, field: F) =>
    (owns.get(place)?.[field] ?? nothing[field] ?? null) as Own[F] | null;
  const each = <F extends keyof Own>(field: F) => places.map((place) => ownAt(place, field));
  const differ = (field: keyof Own) => new Set(each(field).map((value) => JSON.stringify(value))).size > 1;
  /** Sets a field of all the cells, from what each has. */
  const set = <F extends keyof Own>(field: F, now: (was: Own[F] | null) => unknown) =>
    open.send({
      type: "setCells",
      work: item.id,
      field,
      at: places.map((place) => {
        const was = ownAt(place, field);
        return { place, was, now: now(was) };
      }),
    } as never);
  /** The same where a refusal has no field to stand beside. */
  const tell: typeof set = (field, now) => set(field, now).catch((wrong: Error) => open.say(wrong.message));
  const choose = (field: keyof Own, now: unknown) => void tell(field, () => now);

  const orItem = (words: string) => `as the item: ${words}`;
  const chosen = (field: keyof Own) => ({
    value: String(ownAt(places[0]!, field) ?? ""),
    differ: differ(field),
  });
  const typed = (
    field: "colour" | "pace" | "labour" | "allowance" | "wording" | "customerNote" | "crewNote" | "step",
  ) => ({
    value: differ(field) ? "" : String(ownAt(places[0]!, field) ?? ""),
    differ: differ(field),
    onKeep: (text: string) => set(field, () => (text === "" ? null : text)),
  });
  const quantity = differ("quantity") ? "" : (ownAt(places[0]!, "quantity")?.text ?? "");
  // A bare number is in the unit that stands beside the field, also where that is not the job's own.
  const ofJob = job.units === "feet" ? ["ft²", "ft", "ft³"] : ["m²", "m", "m³"];
  const inUnit = (text: string) =>
    item.unit && !ofJob.includes(item.unit) && /^[\d.]+$/.test(text) ? `${text} ${item.unit}` : text;
  const own = (...fields: (keyof Own)[]) =>
    fields.some((field) => each(field).some((value) => value !== null && value !== ""));

  return (
    <ul className="rows">
      <Setting
        label="Quantity from"
        {...chosen("source")}
        none={orItem(item.measureLabel)}
        options={sheet.sources.map((s) => [s.name, many ? s.label : `${s.label}, ${inWords(s.figure)}`] as const)}
        onChoose={(now) => choose("source", now)}
      />
      <Typed
        label={`or typed${item.unit ? ", in " + item.unit : ""}`}
        value={quantity}
        differ={differ("quantity")}
        hint={times ? "for one such place" : many ? "for each of them" : undefined}
        onKeep={(text) =>
          set("quantity", () => (text === "" ? null : { kind: item.measureKind, text: inUnit(text), units: job.units }))
        }
      />
      {item.coatsOffered.length > 0 && (
        <Setting
          label="Coats here"
          {...chosen("coats")}
          none={orItem(String(item.coats))}
          options={item.coatsOffered.map((c) => [String(c), String(c)] as const)}
          onChoose={(now) => choose("coats", now === "" ? null : Number(now))}
        />
      )}
      {products.length > 0 && (
        <Setting
          label="Product here"
          {...chosen("product")}
          none={orItem(products.find(([id]) => id === item.product)?.[1] ?? "")}
          options={products}
          onChoose={(now) => choose("product", now || null)}
        />
      )}
      <Typed label="Colour here" {...typed("colour")} hint={item.colour ? orItem(item.colour) : undefined} />
      {item.kind === "rate" && <Typed label="Pace here" {...typed("pace")} hint={orItem(item.paceShown)} />}
      {item.kind !== "priceOnly" && !item.labour && (
        <Typed
          label="Labour here"
          {...typed("labour")}
          hint={`like 6 h, or 2 x 3 h; ${times ? "for one such place, " : ""}instead of the pace`}
        />
      )}
      {item.levels.length > 0 && (
        <Setting
          label="Difficulty here"
          {...chosen("difficulty")}
          none={orItem(item.difficulty || "as the rate stands")}
          options={item.levels.map((l) => [l.name, `${l.name} × ${l.factor}`] as const)}
          onChoose={(now) => choose("difficulty", now || null)}
        />
      )}
      {sheet.questions.map((q) => {
        // What is asked once for the job is answered for all places at once.
        if (q.once) return null;
        const answers = places.map((p) => answerIn(ownAt(p, "answers"), q));
        const unlike = new Set(answers).size > 1;
        return (
          <Typed
            key={q.id}
            label={`${q.text} here, ${q.unit}`}
            value={unlike ? "" : answers[0]!}
            differ={unlike}
            hint={answers[0] === "" ? "as the item" : undefined}
            onKeep={(text) => set("answers", (was) => answered(was ?? [], q, text))}
          />
        );
      })}
      <Part title="Conditions only here" open={each("conditions").some((c) => (c?.length ?? 0) > 0)}>
        <li className={styles.stack}>
          <ConditionChecks
            chosen={each("conditions").map((c) => c ?? [])}
            onChange={(now) => void tell("conditions", (was) => now(was ?? []))}
          />
        </li>
      </Part>
      <Part title="Who, what on, how long" open={own("supply", "role", "surface", "step", "allowance")}>
        <Setting
          label="Who supplies here"
          {...chosen("supply")}
          none={orItem(supplies.find(([s]) => s === item.supply)![1])}
          options={supplies}
          onChoose={(now) => choose("supply", now || null)}
        />
        {item.role && (
          <Setting
            label="Role here"
            {...chosen("role")}
            none={orItem(roles.find((r) => r.id === item.role!.used)?.name ?? "")}
            options={roles.map((r) => [r.id, r.name] as const)}
            onChoose={(now) => choose("role", now || null)}
          />
        )}
        <Setting
          label="Surface here"
          {...chosen("surface")}
          none="as the item"
          options={surfaces.map((s) => [s.id, `${s.name}, ${s.says}`] as const)}
          onChoose={(now) => choose("surface", now || null)}
        />
        <Typed label="Round the hours here up to, h" {...typed("step")} hint="as the item unless you say" />
        <Typed
          label="Allowance here, a provisional sum"
          {...typed("allowance")}
          hint={times ? "for one such place" : "stands instead of hours and goods"}
        />
      </Part>
      <Part title="What is said here" open={own("wording", "customerNote", "hidden", "crewNote")}>
        <Typed
          label="Customer reads here"
          rows={2}
          {...typed("wording")}
          hint={item.wording ? orItem(item.wording) : undefined}
        />
        <Typed label="Customer note here" rows={2} {...typed("customerNote")} hint="instead of the item's" />
        <Typed label="Crew reads here" rows={2} {...typed("crewNote")} hint="instead of what the item says" />
        <Setting
          label="What the customer sees here"
          {...chosen("hidden")}
          none={orItem(item.hidden ? "hidden" : "shown")}
          options={[
            ["false", "shown"],
            ["true", "hidden; its price is spread over the rest"],
          ]}
          onChoose={(now) => choose("hidden", now === "" ? null : now === "true")}
        />
      </Part>
    </ul>
  );
}
