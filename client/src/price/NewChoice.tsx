import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Refused, type Schemas, newId } from "../api/client";
import { read } from "../api/jobQueries";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { toggled } from "../controls/toggled";
import { typedNumber } from "../controls/typedNumber";
import { wholeOr } from "../controls/wholeOr";
import { useJob } from "../job/JobContext";
import { BadRows, useTableIntake } from "../measure/useTableIntake";
import { TableUpload } from "../measure/TableUpload";
import styles from "./options.module.css";

/** An option as it is typed. */
interface Typed {
  id: string;
  name: string;
  product: string;
  price: string;
  coats: string;
  colour: string;
}

const blank = (): Typed => ({ id: newId(), name: "", product: "", price: "", coats: "", colour: "" });

const made = (typed: Typed): Schemas["ChoiceOption"] => ({
  id: typed.id,
  name: typed.name.trim(),
  supplier: "",
  code: "",
  product: typed.product || null,
  price: typedNumber(typed.price) || null,
  coats: typed.coats.trim() === "" ? null : (wholeOr(typed.coats) as number),
  colour: typed.colour.trim() || null,
  needs: [],
  rulesOut: [],
});

interface Props {
  work: readonly Schemas["ChoosableView"][];
  onClose: () => void;
}

/** Makes a choice of a piece of work: options that are typed, or a supplier's table of variations. */
export function NewChoice({ work, onClose }: Props) {
  const [open, { job, cells }] = useJob();
  const [id] = useState(newId);
  const [name, setName] = useState("");
  const [of, setOf] = useState(work[0]!.work);
  const [goods, setGoods] = useState("");
  const [places, setPlaces] = useState<ReadonlySet<string>>(new Set());
  const [from, setFrom] = useState<"typed" | "table">("typed");
  const [typed, setTyped] = useState<readonly Typed[]>(() => [blank(), blank()]);
  const [wrong, setWrong] = useState<{ field: string; words: string } | null>(null);
  const table = useTableIntake("choices", (body) => read.choices(job.id, body));
  const chosen = work.find((w) => w.work === of)!;
  const varied = goods || chosen.goods[0]?.id || "";
  const unit = chosen.goods.find((g) => g.id === varied)?.unit ?? chosen.unit;
  const isAssembly = job.work.find((w) => w.id === of)?.kind === "assembly";
  const here = job.places.filter((p) => cells.has(`${of}/${p.id}`));
  const options =
    from === "typed"
      ? typed.filter((t) => t.name.trim() !== "").map(made)
      : table.good.map((row) => ({
          ...made(blank()),
          name: row.name,
          price: row.price,
          code: row.code,
          supplier: row.supplier,
        }));
  const make = () =>
    open.send({
      type: "addChoice",
      choice: {
        id,
        rank: "",
        name,
        work: of,
        options,
        included: options[0]!.id,
        taken: options[0]!.id,
        places: [...places],
        of: isAssembly && varied ? varied : null,
        follows: null,
        locked: false,
        hidden: false,
        supplierShown: false,
      },
    });
  const says = (field: string) => (wrong?.field === field ? wrong.words : undefined);
  return (
    <Ask
      title="New choice"
      width="md"
      apply="Make the choice"
      ready={name.trim() !== "" && options.length > 1 && (from === "typed" || table.ready)}
      onApply={make}
      onRefused={(error) => {
        const field = (error as Refused).field;
        setWrong({ field, words: error.message });
        return field === "name" || field === "work";
      }}
      onClose={onClose}
    >
      <Input label="Name, as the customer reads it" focus value={name} onType={setName} wrong={says("name")} />
      <Choice
        label="Of which work"
        value={of}
        options={work.map((w) => [w.work, w.name] as const)}
        wrong={says("work")}
        onChoose={(now) => {
          setOf(now);
          setGoods("");
          setPlaces(new Set());
        }}
      />
      {isAssembly && chosen.goods.length > 0 && (
        <Choice
          label="Of which goods"
          value={varied}
          options={chosen.goods.map((g) => [g.id, g.name] as const)}
          onChoose={setGoods}
        />
      )}
      {here.length > 1 && (
        <details>
          <summary>{places.size === 0 ? "at every place" : `at ${places.size} of ${here.length} places`}</summary>
          <div className={styles.ticked} role="group" aria-label="Places of the choice">
            {here.map((p) => (
              <Check key={p.id} on={places.has(p.id)} onTick={() => setPlaces(toggled(places, p.id))}>
                {p.name}
              </Check>
            ))}
          </div>
        </details>
      )}
      <Radios
        label="Options"
        value={from}
        options={[
          { value: "typed", words: "typed", small: "products of the Book, coats, colours, prices" },
          {
            value: "table",
            words: "from a supplier’s table",
            small: "CSV or .xlsx: each row a variation with its price",
          },
        ]}
        onChoose={setFrom}
      />
      {from === "typed" ? (
        <TypedOptions
          unit={unit}
          typed={typed}
          covers={job.work.find((w) => w.id === of)?.covers ?? null}
          onType={setTyped}
        />
      ) : (
        <>
          <TableUpload {...table.upload} />
          {table.error && <p className="error">{table.error.message}</p>}
          {table.read && (
            <p role="status">
              {table.good.length} variations{table.bad.length > 0 && `, ${table.bad.length} rows that cannot be read`}
            </p>
          )}
          <BadRows rows={table.bad} />
          {table.leaveOut}
        </>
      )}
      <p className="note">
        The first is included: the price is printed with it. A price is what the goods cost per {unit}; of work that is
        sold by the unit, what that is sold at.
      </p>
    </Ask>
  );
}

interface TypedProps {
  /** What a price is for. */
  unit: string;
  typed: readonly Typed[];
  covers: Schemas["Kind"] | null;
  onType: (typed: readonly Typed[]) => void;
}

function TypedOptions({ unit, typed, covers, onType }: TypedProps) {
  const { data: products } = useQuery(ask.bookProducts);
  const set = (at: number, field: keyof Typed, text: string) =>
    onType(typed.map((t, i) => (i === at ? { ...t, [field]: text } : t)));
  return (
    <div className={styles.typed}>
      {typed.map((option, i) => (
        <div key={option.id} role="group" aria-label={`Option ${i + 1}`}>
          <Input label={`Option ${i + 1}`} value={option.name} onType={(text) => set(i, "name", text)} />
          <Choice
            label="Product"
            value={option.product}
            none="as the work has it"
            options={(products ?? [])
              .filter((p) => covers === null || p.covers === covers)
              .map((p) => [p.id, p.name, p.category || "others"] as const)}
            onChoose={(now) => set(i, "product", now)}
          />
          <Input label={`Price per ${unit}`} value={option.price} onType={(text) => set(i, "price", text)} />
          <Input label="Coats" value={option.coats} onType={(text) => set(i, "coats", text)} />
          <Input label="Colour" value={option.colour} onType={(text) => set(i, "colour", text)} />
        </div>
      ))}
      <button type="button" className="act" onClick={() => onType([...typed, blank()])}>
        Another option
      </button>
    </div>
  );
}
