import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import styles from "./buying.module.css";
import { MailPaper } from "./MailPaper";
import { useBuying } from "./useDeliver";

interface Props {
  row: Schemas["PurchaseRow"];
  did: (answer: Promise<Schemas["BuyingView"]>) => Promise<void>;
  onClose: () => void;
}

/** What came for an order, line by line, and what was paid for it. */
export function ReceiveGoods({ row, today, did, onClose }: Props & { today: string }) {
  const { job } = useBuying();
  const [id] = useState(newId);
  const [day, setDay] = useState(today);
  const [delivery, setDelivery] = useState(row.delivery);
  const [came, setCame] = useState(() => row.lines.map((l) => ({ line: l.line, count: l.rest, paid: "" })));
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const set = (at: number, part: Partial<(typeof came)[number]>) =>
    setCame(came.map((c, i) => (i === at ? { ...c, ...part } : c)));
  return (
    <Ask
      title={`Goods came for ${row.number}`}
      apply="Take them in"
      ready={came.some((c) => c.count.trim() !== "") || delivery.trim() !== ""}
      onApply={() => did(change.receiveGoods(job.id, row.id, { id, day, lines: came, delivery }))}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["day", "delivery"].includes(field);
      }}
      onClose={onClose}
    >
      <p className="note">
        What came is kept for this job. Empty as paid: as it was ordered; write what the supplier charged, with or
        without tax as the prices of the Book are.
      </p>
      <table className={styles.lines}>
        <thead>
          <tr>
            <th scope="col">Goods</th>
            <th scope="col">Came</th>
            <th scope="col">Paid</th>
          </tr>
        </thead>
        <tbody>
          {row.lines.map((line, at) => (
            <tr key={line.line}>
              <th scope="row">
                {line.name}
                <small>
                  {line.ordered}
                  {line.came && ` · ${line.came}`}
                </small>
              </th>
              <td>
                <Input
                  bare
                  label={`${line.name}: came`}
                  inputMode="decimal"
                  focus={at === 0}
                  value={came[at]!.count}
                  onType={(count) => set(at, { count })}
                />
              </td>
              <td>
                <Input
                  bare
                  label={`${line.name}: paid`}
                  inputMode="decimal"
                  placeholder="as ordered"
                  value={came[at]!.paid}
                  onType={(paid) => set(at, { paid })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Input
        label="Paid for the delivery"
        inputMode="decimal"
        value={delivery}
        wrong={wrong["delivery"]}
        onType={setDelivery}
      />
      <Input label="Day" placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
    </Ask>
  );
}

/** Closes an order short: what did not come is to buy again. */
export function CloseOrder({ row, did, onClose }: Props) {
  const { job } = useBuying();
  const [id] = useState(newId);
  const [reason, setReason] = useState("");
  const [wrong, setWrong] = useState("");
  return (
    <Ask
      title={`Close ${row.number} short`}
      apply="Close it"
      width="xs"
      ready={reason.trim() !== ""}
      onApply={() => did(change.closeOrder(job.id, row.id, { id, reason }))}
      onRefused={(error) => {
        const its = error instanceof Refused && error.field === "reason";
        if (its) setWrong(error.message);
        return its;
      }}
      onClose={onClose}
    >
      <p className="note">No more is waited for: what did not come is to buy again. It can be taken back.</p>
      <Input label="Why" focus maxLength={500} value={reason} wrong={wrong} onType={setReason} />
    </Ask>
  );
}

/** A mail that brings an order to its supplier, with its PDF. */
export function MailOrder({ row, did, onClose }: Props) {
  const { job } = useBuying();
  const [id] = useState(newId);
  const { data } = useQuery(askJob.orderMessage(job, row.id));
  if (!data) return null;
  return (
    <MailPaper
      title={`Mail ${row.number}`}
      draft={data}
      brings="the order"
      onSend={(message) => did(change.mailOrder(job.id, row.id, { id, message }))}
      onClose={onClose}
    />
  );
}
