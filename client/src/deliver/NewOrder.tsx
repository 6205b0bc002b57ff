import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import styles from "./buying.module.css";
import { MoneyRow, MoneyRows } from "./MoneyRows";
import { useBuying } from "./useDeliver";

interface Props {
  data: Schemas["BuyingView"];
  from: Schemas["ToOrderFrom"];
  onClose: () => void;
}

const keyOf = (goods: Schemas["GoodsKey"]) => `${goods.material}/${goods.colour}/${goods.unit}`;

/** An order to a supplier: packs and prices to be typed over, what it comes to, and the press that places it. */
export function NewOrder({ data, from, onClose }: Props) {
  const { job, did } = useBuying();
  const { data: choices = [] } = useQuery(ask.goods);
  const [id] = useState(newId);
  const [supplier, setSupplier] = useState(from.name);
  const [lines, setLines] = useState(from.lines);
  const [delivery, setDelivery] = useState(from.delivery);
  const [deliverTo, setDeliverTo] = useState(data.deliverTo);
  const [by, setBy] = useState("");
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const wanted = {
    supplier,
    lines: lines.map(({ goods, pack, count, price }) => ({ goods, pack, count, price })),
    delivery,
  };
  const asks = lines.some((l) => l.count.trim() !== "");
  const {
    data: draft,
    error,
    isPlaceholderData,
  } = useQuery({
    ...askJob.orderDraft(job, wanted),
    enabled: asks,
    placeholderData: keepPreviousData,
  });
  const shown = asks && !error ? draft : undefined;
  const set = (at: number, part: Partial<(typeof lines)[number]>) =>
    setLines(lines.map((l, i) => (i === at ? { ...l, ...part } : l)));
  const there = new Set(lines.map((l) => keyOf(l.goods)));
  return (
    <Ask
      title={from.name ? `Order from ${from.name}` : "New order"}
      apply="Place it"
      width="md"
      ready={shown !== undefined && !isPlaceholderData && supplier.trim() !== ""}
      onApply={() => did(change.placeOrder(job.id, { id, wanted, total: shown!.total, deliverTo, by, words }))}
      onRefused={(refused) => {
        const field = refused instanceof Refused ? refused.field : "";
        setWrong({ [field]: refused.message });
        return ["supplier", "by", "deliverTo", "words"].includes(field);
      }}
      onClose={onClose}
    >
      <Input
        label="Supplier"
        focus={from.name === ""}
        maxLength={120}
        value={supplier}
        wrong={wrong["supplier"]}
        hint={data.suppliers.length > 0 ? `known: ${data.suppliers.join(", ")}` : undefined}
        onType={setSupplier}
      />
      {lines.length > 0 && (
        <table className={styles.lines}>
          <thead>
            <tr>
              <th scope="col">Goods</th>
              <th scope="col">How many</th>
              <th scope="col">Price of one</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line, at) => (
              <tr key={keyOf(line.goods) + line.pack}>
                <th scope="row">
                  {line.name}
                  <small>{line.packName}</small>
                </th>
                <td>
                  <Input
                    bare
                    label={`How many of ${line.name}, ${line.packName}`}
                    inputMode="decimal"
                    focus={at === 0 && from.name !== ""}
                    value={line.count}
                    onType={(count) => set(at, { count })}
                  />
                </td>
                <td>
                  <Input
                    bare
                    label={`Price of ${line.name}, ${line.packName}`}
                    inputMode="decimal"
                    unit={data.currency}
                    value={line.price}
                    onType={(price) => set(at, { price })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Choice
        label="Add goods of the Book"
        value=""
        none="choose"
        options={choices
          .filter((c) => !there.has(keyOf(c.goods)))
          .map((c) => [keyOf(c.goods), c.goods.colour ? `${c.name}, ${c.goods.colour}` : c.name] as const)}
        onChoose={(key) => {
          const chosen = choices.find((c) => keyOf(c.goods) === key);
          if (chosen) setLines([...lines, ...chosen.packs]);
        }}
      />
      <Input label="Delivery" inputMode="decimal" unit={data.currency} value={delivery} onType={setDelivery} />
      {error && asks && (
        <p className="error" role="alert">
          {error.message}
        </p>
      )}
      {shown && (
        <MoneyRows label="What it comes to" rows={shown.amounts}>
          <MoneyRow label={<b>In all</b>}>
            <b>{shown.total}</b>
          </MoneyRow>
          {shown.says.map((says) => (
            <li key={says} className="note">
              {says}
            </li>
          ))}
        </MoneyRows>
      )}
      <Input label="Deliver to" maxLength={300} value={deliverTo} wrong={wrong["deliverTo"]} onType={setDeliverTo} />
      <Input
        label="Wanted by"
        placeholder="2027-01-31"
        value={by}
        wrong={wrong["by"]}
        hint="empty for no day"
        onType={setBy}
      />
      <Input
        label="Note to the supplier"
        rows={2}
        maxLength={2000}
        value={words}
        wrong={wrong["words"]}
        onType={setWords}
      />
    </Ask>
  );
}
