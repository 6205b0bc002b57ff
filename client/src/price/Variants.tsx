import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { newId } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { TwoFigures, TwoHead } from "./TwoFigures";
import styles from "./options.module.css";
import sure from "./sure.module.css";

type Variant = Schemas["VariantView"];

/** Whole versions of the estimate side by side; one of them is what the job is. */
export function Variants() {
  const [, { job }] = useJob();
  const [making, setMaking] = useState(false);
  const [against, setAgainst] = useState<string | null>(null);
  const { data } = useQuery(askJob.variants(job));
  if (!data) return null;
  const variants = data.variants;
  const shown = variants.find((v) => v.id === against && !v.taken);
  return (
    <section className="panel" aria-label="Variants">
      <header>
        <h2>Variants</h2>
        <span className="note">
          whole versions of the estimate, at most {data.most}; they share places, Book and proposal
        </span>
        {variants.length < data.most && (
          <button className="act" onClick={() => setMaking(true)}>
            New variant
          </button>
        )}
      </header>
      {variants.length === 0 ? (
        <p className="pad note">
          A variant begins as the job stands. Take it, change work, cells, sections and terms, and the others stay as
          they were; taking one is one step, and one step back.
        </p>
      ) : (
        <table className={`list ${styles.variants}`} aria-label="Variants side by side">
          <thead>
            <tr>
              <th>Variant</th>
              <th className="n">Hours</th>
              <th className="n">Cost</th>
              <th className="n">Price before tax</th>
              <th className="n">Margin</th>
              <th className="n">Customer pays</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {variants.map((variant) => (
              <Row
                key={variant.id}
                variant={variant}
                taken={variants.find((v) => v.taken)!.id}
                open={against === variant.id}
                onAgainst={() => setAgainst(against === variant.id ? null : variant.id)}
              />
            ))}
          </tbody>
        </table>
      )}
      {shown && !shown.refused && <Against variant={shown} taken={variants.find((v) => v.taken)!.name} />}
      {making && <NewVariant first={variants.length === 0} onClose={() => setMaking(false)} />}
    </section>
  );
}

interface RowProps {
  variant: Variant;
  taken: string;
  open: boolean;
  onAgainst: () => void;
}

function Row({ variant, taken, open: shown, onAgainst }: RowProps) {
  const [open] = useJob();
  const { name } = variant;
  const figure = (of: Schemas["FigureView"] | null, what: string) => (
    <td className="n">{of && <Figure figure={of} label={`${name}, ${what}`} />}</td>
  );
  return (
    <tr className={variant.taken ? styles.taken : undefined} aria-current={variant.taken || undefined}>
      <th scope="row">
        <Field
          label={`Name of ${name}`}
          bare
          value={name}
          onKeep={(text) => open.send({ type: "renameVariant", variant: variant.id, was: name, name: text })}
        />
        {variant.refused && <small className="error">{variant.refused}</small>}
      </th>
      {figure(variant.hours, "hours")}
      {figure(variant.cost, "cost")}
      {figure(variant.beforeTax, "price before tax")}
      {figure(variant.margin, "margin")}
      {figure(variant.total, "customer pays")}
      <td>
        <span className={styles.acts}>
          {variant.taken ? (
            <b>taken</b>
          ) : (
            <>
              <button
                className="act"
                aria-label={`Take ${name}`}
                onClick={() => void open.tell({ type: "takeVariant", was: taken, variant: variant.id })}
              >
                Take
              </button>
              <button className="act" aria-expanded={shown} aria-label={`What differs in ${name}`} onClick={onAgainst}>
                What differs
              </button>
              <button
                className="act"
                aria-label={`Remove ${name}`}
                onClick={() => void open.tell({ type: "removeVariant", variant: variant.id })}
              >
                Remove
              </button>
            </>
          )}
        </span>
      </td>
    </tr>
  );
}

function Against({ variant, taken }: { variant: Variant; taken: string }) {
  const [, { job }] = useJob();
  const { data } = useQuery(askJob.variant(job, variant.id));
  if (!data) return null;
  return (
    <>
      <table className={`list ${sure.two}`} aria-label={`What differs in ${variant.name}`}>
        <TwoHead ours={taken} theirs={variant.name} />
        <tbody>
          <tr className={sure.whole}>
            <th scope="row">The whole job {data.terms && <small>its terms differ too</small>}</th>
            <TwoFigures name="The whole job" of={data} />
          </tr>
          {data.work.map((work) => (
            <tr key={work.id}>
              <th scope="row">
                {work.name} <small className={styles.what}>{work.what}</small>
              </th>
              <TwoFigures name={work.name} of={work} />
            </tr>
          ))}
        </tbody>
      </table>
      {data.work.length === 0 && <p className="pad note">No piece of work differs in hours, cost or price.</p>}
    </>
  );
}

function NewVariant({ first, onClose }: { first: boolean; onClose: () => void }) {
  const [open] = useJob();
  const [name, setName] = useState("");
  const [base, setBase] = useState("As first made");
  return (
    <Ask
      title="New variant"
      apply="Begin it"
      ready={name.trim() !== ""}
      onApply={() => open.send({ type: "addVariant", variant: newId(), name, base: newId(), baseName: base })}
      onClose={onClose}
    >
      <Input label="Name of the new variant" focus value={name} onType={setName} hint="it begins as the job stands" />
      {first && <Input label="Name of the job as it stands" value={base} onType={setBase} />}
    </Ask>
  );
}
