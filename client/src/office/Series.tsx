import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";

/** A series of numbers: it is moved on here, and what was skipped stands here. */
export function Series({ orders, numbers }: { orders: boolean; numbers: Schemas["NumbersView"] }) {
  const [moving, setMoving] = useState("");
  return (
    <>
      <p>
        <button type="button" className="act" onClick={() => setMoving(newId())}>
          Move the series on
        </button>
      </p>
      {numbers.gaps.length > 0 && (
        <ul aria-label="Gaps that a person made">
          {numbers.gaps.map((gap) => (
            <li key={gap.skipped + gap.at}>
              {gap.skipped} skipped: {gap.reason} <span className="note">{gap.at}</span>
            </li>
          ))}
        </ul>
      )}
      {moving && <MoveOn id={moving} orders={orders} next={numbers.nextNumber} onClose={() => setMoving("")} />}
    </>
  );
}

/** How a series stands. */
export const useNumbers = (orders: boolean) => useQuery(ask.numbers(orders)).data;

/** Moves a series on, with the reason for the gap. */
function MoveOn({ id, orders, next, onClose }: { id: string; orders: boolean; next: number; onClose: () => void }) {
  const queries = useQueryClient();
  const [to, setTo] = useState("");
  const [reason, setReason] = useState("");
  return (
    <Ask
      title="Move the series on"
      apply="Move it"
      width="xs"
      ready={/^\d{1,9}$/.test(to.trim()) && reason.trim() !== ""}
      onApply={async () => {
        await change.moveNumbers({ id, next: Number(to), reason, orders });
        await queries.invalidateQueries({ queryKey: ["numbers"] });
      }}
      onClose={onClose}
    >
      <p className="note">
        A series goes forward alone. What is skipped is a gap that you made: it is listed here with your reason.
      </p>
      <Input
        label="The next number is"
        inputMode="numeric"
        focus
        value={to}
        hint={`it would be ${next}`}
        onType={setTo}
      />
      <Input label="Why" maxLength={500} value={reason} onType={setReason} />
    </Ask>
  );
}
