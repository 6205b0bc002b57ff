import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { MoneyRow, MoneyRows } from "./MoneyRows";
import { useInvoices } from "./useDeliver";

interface Props {
  data: Schemas["InvoicesView"];
  /** The step that is billed; null where that is to be said. */
  step: number | null;
  onClose: () => void;
}

/** An invoice: what it bills, what that comes to, and the press that issues it. */
export function NewInvoice({ data, step: asked, onClose }: Props) {
  const { job, did } = useInvoices();
  const open = data.steps.filter((s) => s.billed === "");
  const [id] = useState(newId);
  const [by, setBy] = useState<Schemas["BillsBy"]>(
    data.byMonth ? (open.length > 0 ? "month" : "rest") : open.length > 0 ? "step" : "percent",
  );
  const [step, setStep] = useState(asked ?? open[0]?.number ?? null);
  const [number, setNumber] = useState(data.changes[0]?.number ?? null);
  const [percent, setPercent] = useState(data.done);
  const [amount, setAmount] = useState("");
  const [supplied, setSupplied] = useState(data.today);
  const [reason, setReason] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const wanted = {
    by,
    step: by === "step" || by === "month" ? step : by === "change" ? number : null,
    value: by === "percent" ? percent : by === "amount" ? amount : "",
  };
  const asks =
    by === "step" || by === "month" || by === "change"
      ? wanted.step !== null
      : by === "rest" || by === "done" || wanted.value.trim() !== "";
  const {
    data: draft,
    error,
    isPlaceholderData,
  } = useQuery({
    ...askJob.draft(job, wanted),
    enabled: asks,
    placeholderData: keepPreviousData,
  });
  const shown = asks && !error ? draft : undefined;
  const refused = error instanceof Refused && asks ? error.message : "";
  return (
    <Ask
      title="New invoice"
      apply="Issue it"
      ready={shown !== undefined && !isPlaceholderData}
      onApply={() => did(change.issueInvoice(job.id, { id, wanted, total: shown!.total, supplied, reason }))}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["supplied", "reason"].includes(field);
      }}
      onClose={onClose}
    >
      <Radios
        label="What it bills"
        value={by}
        options={[
          ...(open.length > 0
            ? [
                data.byMonth
                  ? { value: "month" as const, words: "A month of the contract year" }
                  : { value: "step" as const, words: "A step of the payment plan" },
              ]
            : []),
          ...(data.byMonth
            ? []
            : [{ value: "percent" as const, words: "Work done to date", small: "percent of the contract sum" }]),
          ...(data.done !== ""
            ? [{ value: "done" as const, words: "Work that is ticked", small: "line by line, at what each is worth" }]
            : []),
          { value: "amount" as const, words: "An amount on account", small: "not tied to work; used up later" },
          ...(data.changes.length > 0
            ? [{ value: "change" as const, words: "A change order", small: "on its own" }]
            : []),
          { value: "rest" as const, words: "All that is open", small: data.byMonth ? "it closes the year" : undefined },
        ]}
        onChoose={setBy}
      />
      {(by === "step" || by === "month") && (
        <Choice
          label={by === "step" ? "Step" : "Month"}
          value={step === null ? "" : String(step)}
          options={open.map((s) => [String(s.number), s.when] as const)}
          onChoose={(to) => setStep(Number(to))}
        />
      )}
      {by === "change" && (
        <Choice
          label="Change order"
          value={number === null ? "" : String(number)}
          options={data.changes.map((c) => [String(c.number), `${c.number}: ${c.title}, ${c.net}`] as const)}
          onChoose={(to) => setNumber(Number(to))}
        />
      )}
      {by === "percent" && (
        <Input
          label="Done to date"
          unit="%"
          inputMode="decimal"
          value={percent}
          wrong={refused}
          hint={data.done && `${data.done} % by hours allowed`}
          onType={setPercent}
        />
      )}
      {by === "amount" && (
        <Input
          label="Amount before tax"
          unit={data.currency}
          inputMode="decimal"
          value={amount}
          wrong={refused}
          onType={setAmount}
        />
      )}
      {refused && ["step", "month", "change", "done", "rest"].includes(by) && (
        <p className="error" role="alert">
          {refused}
        </p>
      )}
      <Input
        label="Day of supply"
        placeholder="2027-01-31"
        value={supplied}
        wrong={wrong["supplied"]}
        hint="it may be another than the day of issue, which is today"
        onType={setSupplied}
      />
      {shown && (
        <MoneyRows label="What it comes to" rows={shown.rows}>
          <MoneyRow label={<b>{shown.retained ? "Total, with tax" : "To be paid, with tax"}</b>}>
            <b>{shown.total}</b>
          </MoneyRow>
          {shown.retained && (
            <>
              <MoneyRow label="Retained" detail="payable when it is released">
                <b>{shown.retained}</b>
              </MoneyRow>
              <MoneyRow label={<b>Payable now</b>}>
                <b>{shown.payable}</b>
              </MoneyRow>
            </>
          )}
        </MoneyRows>
      )}
      {shown?.ahead && (
        <Input
          label="Why it is billed ahead"
          maxLength={500}
          value={reason}
          wrong={wrong["reason"]}
          hint={`it goes beyond the contract sum by ${shown.ahead}`}
          onType={setReason}
        />
      )}
    </Ask>
  );
}
