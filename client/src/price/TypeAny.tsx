import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import { Figure } from "../figure/Figure";
import { FigureText } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import styles from "./price.module.css";

type What = Schemas["SolveFor"];

/** Any one figure of the price is typed; what would move is said before it is kept. */
export function TypeAny({ price }: { price: Schemas["PriceView"] }) {
  const [open, { job }] = useJob();
  const [areaOf, setAreaOf] = useState<string>("");
  const [typed, setTyped] = useState<{ what: What; text: string } | null>(null);
  const [reason, setReason] = useState("");
  const [refused, setRefused] = useState("");
  const panel = useRef<HTMLElement>(null);
  const area = price.perArea.find((a) => a.measure === areaOf) ?? price.perArea[0];
  const asked = typed && typed.text.trim() !== "" ? typed : null;
  const solved = useQuery({ ...askJob.typed(job, asked?.what, asked?.text ?? "", area?.measure), enabled: !!asked });
  const answer = asked && !solved.isPlaceholderData ? solved.data : undefined;
  const wrong = asked && solved.error ? solved.error.message : "";
  const rows: Schemas["TypableView"][] = [
    ...price.typable,
    ...(area ? [{ what: "perArea" as const, label: area.per, figure: area.figure }] : []),
  ];
  const wouldBe = (what: What) => answer?.exact?.readouts.find((r) => r.what === what)?.figure;

  async function keep(view: Schemas["TypedView"]) {
    if (view.belowFloor && reason.trim() === "") {
      setRefused("Say why it goes below your floor.");
      return;
    }
    try {
      await open.send({ ...view.keeps, type: "typePrice", reason: view.belowFloor ? reason.trim() : "" } as never);
      back();
      // What was typed is kept and done with: Ctrl+Z is the job's again.
      panel.current?.focus();
    } catch (error) {
      setRefused((error as Error).message);
    }
  }
  function back() {
    setTyped(null);
    setReason("");
    setRefused("");
  }
  const near = answer && !answer.exact ? [answer.below, answer.above].filter((v) => v != null) : [];
  const below = answer?.exact?.belowFloor || near.some((v) => v.belowFloor);
  return (
    <section className="panel" aria-label="Type any one of these" ref={panel} tabIndex={-1}>
      <header>
        <h2>Type any one of these</h2>
        <span className="note">Enter keeps · Esc leaves</span>
      </header>
      <ul className={`rows ${styles.typable}`}>
        {rows.map((row) => (
          <li key={row.what}>
            <span>{row.label}</span>
            <span className={asked ? styles.was : ""}>
              {row.figure ? <Figure figure={row.figure} label={row.label} /> : "none"}
            </span>
            {asked && asked.what !== row.what ? (
              <b className={styles.would}>
                <Would figure={wouldBe(row.what)} />
              </b>
            ) : (
              <Input
                label={`${row.label}, to be`}
                bare
                inputMode="decimal"
                value={typed?.what === row.what ? typed.text : ""}
                onType={(text) => {
                  setRefused("");
                  setTyped(text === "" ? null : { what: row.what, text });
                }}
                onKeyDown={(e) => {
                  if (e.key === "Escape") back();
                  if (e.key === "Enter" && answer?.exact) void keep(answer.exact);
                }}
              />
            )}
          </li>
        ))}
      </ul>
      {price.perArea.length > 1 && (
        <div className="pad">
          <Choice
            label="Area that a price is said for"
            row
            value={area?.measure ?? ""}
            options={price.perArea.map((a) => [a.measure, a.label] as const)}
            onChoose={(measure) => {
              back();
              setAreaOf(measure);
            }}
          />
        </div>
      )}
      <div className={styles.words} aria-live="polite">
        {wrong || refused ? (
          <p className="error" role="alert">
            {wrong || refused}
          </p>
        ) : null}
        {answer?.exact && (
          <p>
            Would change the <b>{answer.exact.words}</b> Margin: {answer.exact.marginWords}.
          </p>
        )}
        {near.length > 0 && (
          <p>
            {answer!.why}{" "}
            {near.map((view) => {
              const figure = view.readouts.find((r) => r.what === asked!.what)?.figure;
              return (
                <button key={view.keeps.now} type="button" className="act" onClick={() => void keep(view)}>
                  Take {figure && <FigureText figure={figure} />}
                </button>
              );
            })}
          </p>
        )}
        {below && (
          <Input
            label="Why it goes below your floor"
            value={reason}
            maxLength={300}
            onType={setReason}
            onKeyDown={(e) => {
              if (e.key === "Escape") back();
              if (e.key === "Enter" && answer?.exact) void keep(answer.exact);
            }}
          />
        )}
        {answer?.exact && (
          <p>
            <button type="button" className="act" onClick={() => void keep(answer.exact!)}>
              Keep it
            </button>{" "}
            <button type="button" className="act" onClick={back}>
              Leave it
            </button>
          </p>
        )}
        {!asked && <Guard price={price} />}
      </div>
    </section>
  );
}

const Would = ({ figure }: { figure: Schemas["FigureView"] | null | undefined }) =>
  figure ? <FigureText figure={figure} /> : null;

/** What the firm must earn, in words; below it, why the price goes out so. */
function Guard({ price }: { price: Schemas["PriceView"] }) {
  const [open, { job }] = useJob();
  const { guard } = price;
  return (
    <>
      <p className={guard.belowFloor ? styles.warn : ""}>
        {job.tally.margin ? (
          <>
            Margin <Figure figure={job.tally.margin} label="Margin" />: {job.tally.marginWords}.
          </>
        ) : (
          `There is ${job.tally.marginWords}.`
        )}{" "}
        Your floor of {job.pricing.floorMargin} % would need{" "}
        <Figure figure={price.atFloor} label="Price at the floor" />, your target of {job.pricing.goalMargin} %{" "}
        <Figure figure={price.atGoal} label="Price at the target margin" />.
      </p>
      {(guard.belowFloor || guard.reason !== "") && (
        <Field
          label="Why it goes out below your floor"
          value={guard.reason}
          hint="kept with the job"
          onKeep={(text) =>
            open.send({ type: "setAside", check: "belowFloor", was: guard.reason, reason: text.trim() })
          }
        />
      )}
    </>
  );
}
