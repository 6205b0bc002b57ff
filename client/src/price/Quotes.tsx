import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Refused, type Schemas, newId } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import { typedNumber } from "../controls/typedNumber";
import { toggled } from "../controls/toggled";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./options.module.css";

type Section = Schemas["QuotedSectionView"];
type Quoted = Schemas["QuotedView"];
type Quote = Schemas["Quote"];

/** What other firms ask for the work of a section, side by side with doing it ourselves; one of them is taken. */
export function Quotes() {
  const [, { job }] = useJob();
  const [adding, setAdding] = useState<string | null>(null);
  const { data } = useQuery(askJob.quotes(job));
  if (!data) return null;
  return (
    <section className="panel" aria-label="Quotes of other firms">
      <header>
        <h2>Quotes of other firms</h2>
        <span className="note">for a section: who takes one buys that work, and keeps what it leaves out</span>
        {job.work.length > 0 && (
          <button className="act" onClick={() => setAdding("")}>
            New quote
          </button>
        )}
      </header>
      {data.sections.length === 0 ? (
        <p className="pad note">
          Write down what another firm asks for a section, how long that holds and what it leaves out. Each stands
          beside doing it ourselves, with what the job would cost and bring.
        </p>
      ) : (
        data.sections.map((section) => <OfSection key={section.id} section={section} />)
      )}
      {adding !== null && <NewQuote quotes={data} onClose={() => setAdding(null)} />}
    </section>
  );
}

function OfSection({ section }: { section: Section }) {
  return (
    <table className={`list ${styles.variants} ${styles.quotes}`} aria-label={`Quotes for ${section.name}`}>
      <thead>
        <tr>
          <th>{section.name}</th>
          <th className="n">Amount</th>
          <th>Holds until</th>
          <th>Leaves out</th>
          <th className="n">Section costs</th>
          <th className="n">Price of the job</th>
          <th className="n">Margin</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {section.quoted.map((quoted) => (
          <Row key={quoted.quote?.id ?? "ourselves"} section={section} quoted={quoted} />
        ))}
      </tbody>
    </table>
  );
}

function Row({ section, quoted }: { section: Section; quoted: Quoted }) {
  const [open, { job }] = useJob();
  const { quote } = quoted;
  const name = quote?.from ?? "Ourselves";
  const taken = section.quoted.find((q) => q.taken)?.quote?.id ?? null;
  const set = (field: keyof Quote, now: unknown) =>
    open.send({ type: "setQuote", quote: quote!.id, field, was: quote![field], now } as never);
  return (
    <tr className={quoted.taken ? styles.taken : undefined} aria-current={quoted.taken || undefined}>
      <th scope="row">
        {quote ? (
          <Field label={`Who quotes: ${name}`} bare value={quote.from} onKeep={(text) => set("from", text.trim())} />
        ) : (
          "Ourselves"
        )}
        {quoted.refused && <small className="error">{quoted.refused}</small>}
      </th>
      <td className="n">
        {quote && (
          <Field
            label={`Amount of ${name}`}
            bare
            unit={job.info.currency}
            value={quote.amount}
            onKeep={(text) => set("amount", typedNumber(text))}
          />
        )}
      </td>
      <td>
        {quote && (
          <Field
            label={`${name} holds until`}
            bare
            value={quote.validUntil}
            hint={quoted.ends || undefined}
            onKeep={(text) => set("validUntil", text.trim())}
          />
        )}
      </td>
      <td>{quote && <LeavesOut section={section} quote={quote} set={set} />}</td>
      <td className="n">
        {quoted.cost && <Figure figure={quoted.cost} label={`${name}, section costs`} />}
        {quoted.leftToUs && (
          <small>
            of it ours <Figure figure={quoted.leftToUs} label={`${name}, left to us`} />
          </small>
        )}
      </td>
      <td className="n">
        {quoted.beforeTax && <Figure figure={quoted.beforeTax} label={`${name}, price of the job`} />}
      </td>
      <td className="n">{quoted.margin && <Figure figure={quoted.margin} label={`${name}, margin`} />}</td>
      <td>
        <span className={styles.acts}>
          {quoted.taken ? (
            <b>{quote ? "taken" : "as it is"}</b>
          ) : (
            <button
              className="act"
              aria-label={quote ? `Take ${name}` : `Do ${section.name} ourselves`}
              onClick={() =>
                void open.tell({ type: "takeQuote", section: section.id, was: taken, now: quote?.id ?? null })
              }
            >
              {quote ? "Take" : "Do it ourselves"}
            </button>
          )}
          {quote && (
            <button
              className="act"
              aria-label={`Remove ${name}`}
              onClick={() => void open.tell({ type: "removeQuote", quote: quote.id })}
            >
              Remove
            </button>
          )}
        </span>
      </td>
    </tr>
  );
}

interface LeavesOutProps {
  section: Section;
  quote: Quote;
  set: (field: keyof Quote, now: unknown) => Promise<void>;
}

function LeavesOut({ section, quote, set }: LeavesOutProps) {
  const [wrong, setWrong] = useState("");
  const out = section.work.filter((w) => quote.leavesOut.includes(w.id)).map((w) => w.name);
  const words = [...out, quote.without].filter((w) => w !== "").join(", ") || "nothing";
  return (
    <details className={styles.leaves}>
      <summary aria-label={`${quote.from} leaves out: ${words}`}>{words}</summary>
      <div role="group" aria-label={`Work that ${quote.from} leaves out`}>
        {section.work.map((work) => (
          <Check
            key={work.id}
            on={quote.leavesOut.includes(work.id)}
            onTick={() =>
              void set("leavesOut", [...toggled(new Set(quote.leavesOut), work.id)]).then(
                () => setWrong(""),
                (error: Error) => setWrong(error.message),
              )
            }
          >
            {work.name}, ours
          </Check>
        ))}
      </div>
      <Field label="What else, in words" value={quote.without} onKeep={(text) => set("without", text.trim())} />
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </details>
  );
}

function NewQuote({ quotes, onClose }: { quotes: Schemas["QuotesView"]; onClose: () => void }) {
  const [open] = useJob();
  const sections = [...quotes.sections, ...quotes.others];
  const [id] = useState(newId);
  const [section, setSection] = useState(sections[0]?.id ?? "");
  const [from, setFrom] = useState("");
  const [amount, setAmount] = useState("");
  const [until, setUntil] = useState("");
  const [without, setWithout] = useState("");
  const [wrong, setWrong] = useState<{ field: string; words: string } | null>(null);
  const of = (field: string) => (wrong?.field === field ? wrong.words : undefined);
  const make = () =>
    open.send({
      type: "addQuote",
      quote: {
        id,
        rank: "",
        section,
        from,
        amount: typedNumber(amount) || "0",
        taken: false,
        validUntil: until.trim(),
        leavesOut: [],
        without: without.trim(),
      },
    });
  return (
    <Ask
      title="New quote"
      apply="Put it beside the others"
      ready={section !== "" && from.trim() !== ""}
      onApply={make}
      onRefused={(error) => {
        const field = (error as Refused).field;
        setWrong({ field, words: error.message });
        return ["from", "amount", "validUntil", "without"].includes(field);
      }}
      onClose={onClose}
    >
      <Choice
        label="Section"
        value={section}
        options={sections.map((s) => [s.id, s.name] as const)}
        onChoose={setSection}
      />
      <Input label="Who quotes" focus value={from} onType={setFrom} wrong={of("from")} />
      <Input label="Amount for all of it" value={amount} onType={setAmount} wrong={of("amount")} />
      <Input
        label="Holds until"
        value={until}
        onType={setUntil}
        wrong={of("validUntil")}
        hint="like 2027-01-31; empty where nothing is said"
      />
      <Input label="Leaves out, in words" value={without} onType={setWithout} wrong={of("without")} />
    </Ask>
  );
}
