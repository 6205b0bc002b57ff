import { useState } from "react";
import type { Schemas } from "../api/client";
import { Field } from "../controls/Field";
import { typedNumber } from "../controls/typedNumber";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./sure.module.css";

type Sure = Schemas["SureView"];
type Doubt = Schemas["Doubt"];
type Sureness = Schemas["Sureness"];

/** Pieces of work that stand until all are asked for. */
const first = 40;

/** What is said of the whole job: null where nobody has said anything yet. */
const saidOf = (sure: Sure) => (sure.said ? sure.terms : null);

function useSureness(sure: Sure) {
  const [open] = useJob();
  return (now: Sureness) => open.send({ type: "setSureness", was: saidOf(sure), now });
}

/** How far hours and prices may come out otherwise: of the job, of a section, of a piece of work. */
export function Doubts({ sure }: { sure: Sure }) {
  const [open] = useJob();
  const set = useSureness(sure);
  const [all, setAll] = useState(false);
  const shown = all ? sure.work : sure.work.slice(0, first);
  const ofSection = (id: string, was: Doubt | null, now: Doubt | null) =>
    open.send({ type: "setSection", section: id, field: "doubt", was, now } as never);
  const ofWork = (id: string, was: Doubt | null, now: Doubt | null) =>
    open.send({ type: "setWork", work: id, field: "doubt", was, now } as never);
  return (
    <section className="panel" aria-label="How far it may come out otherwise">
      <header>
        <h2>How far it may come out otherwise</h2>
        <span className="note">percent of what is reckoned; what is not set follows its section, then the job</span>
      </header>
      <table className={`list ${styles.doubts}`}>
        <thead>
          <tr>
            <th>Work</th>
            <th className="n">Hours, least and most %</th>
            <th className="n">come to</th>
            <th className="n">a pace of</th>
            <th className="n">Prices, least and most %</th>
            <th className="n">come to</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr className={styles.whole}>
            <th scope="row">The whole job</th>
            <DoubtFields name="the whole job" doubt={sure.terms.all} keep={(all) => set({ ...sure.terms, all })} />
            <td />
          </tr>
          {sure.sections.map((section) => {
            const work = shown.filter((w) => w.section === section.id);
            if (work.length === 0) return null;
            const name = section.name || "Work without a section";
            return [
              <tr key={section.id} className={styles.section}>
                <th scope="row">
                  {name}
                  {section.own && <Differs />}
                </th>
                <DoubtFields
                  name={name}
                  doubt={section.own ?? sure.terms.all}
                  quiet={!section.own}
                  keep={(now) => ofSection(section.id, section.own, now)}
                />
                <Back
                  here={section.own !== null}
                  label={`${name}: as the job`}
                  onBack={() => ofSection(section.id, section.own, null)}
                />
              </tr>,
              ...work.map((w) => (
                <tr key={w.id}>
                  <th scope="row" className={styles.inner}>
                    {w.name}
                    {w.own && <Differs />}
                  </th>
                  <DoubtFields
                    name={`${name}: ${w.name}`}
                    doubt={w.doubt}
                    quiet={!w.own}
                    work={w}
                    keep={(now) => ofWork(w.id, w.own, now)}
                  />
                  <Back
                    here={w.own !== null}
                    label={`${name}: ${w.name}: as its section`}
                    onBack={() => ofWork(w.id, w.own, null)}
                  />
                </tr>
              )),
            ];
          })}
        </tbody>
      </table>
      {sure.work.length > first && (
        <button className="act" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? `Show the first ${first}` : `Show all ${sure.work.length}`}
        </button>
      )}
    </section>
  );
}

/** Says that something is set here, and not where it would come from. */
function Differs() {
  return (
    <span className={styles.differs} role="img" aria-label="set here" title="set here">
      ≠
    </span>
  );
}

function Back({ here, label, onBack }: { here: boolean; label: string; onBack: () => Promise<void> }) {
  const [open] = useJob();
  return (
    <td className="n">
      {here && (
        <button
          className="act"
          aria-label={label}
          onClick={() => void onBack().catch((error: Error) => open.say(error.message))}
        >
          fall back
        </button>
      )}
    </td>
  );
}

interface FieldsProps {
  name: string;
  doubt: Doubt;
  /** Whether it comes from elsewhere. */
  quiet?: boolean;
  work?: Schemas["UncertainView"];
  keep: (now: Doubt) => Promise<void>;
}

function DoubtFields({ name, doubt, quiet, work, keep }: FieldsProps) {
  const field = (of: keyof Doubt, label: string) => (
    <Field
      label={`${label}, ${name}, %`}
      bare
      value={doubt[of]}
      onKeep={(text) => keep({ ...doubt, [of]: typedNumber(text.replace("+", "").replace("−", "-")) })}
    />
  );
  const pair = (low: keyof Doubt, high: keyof Doubt, what: string) => (
    <td>
      <span className={quiet ? `${styles.pair} ${styles.quiet}` : styles.pair}>
        {field(low, `${what} at the least`)}
        {field(high, `${what} at the most`)}
      </span>
    </td>
  );
  const range = (of: Schemas["FigureView"][] | undefined, what: string) => (
    <td className="n">
      {of && of.length > 0 && (
        <>
          <Figure figure={of[1]!} label={`${name}, ${what} at the least`} /> –{" "}
          <Figure figure={of[2]!} label={`${name}, ${what} at the most`} />
        </>
      )}
    </td>
  );
  return (
    <>
      {pair("hoursLow", "hoursHigh", "Hours")}
      {range(work?.hours, "hours")}
      {range(work?.pace, "pace")}
      {pair("pricesLow", "pricesHigh", "Prices")}
      {range(work?.bought, "bought")}
    </>
  );
}

/** What all work shares, and what is assumed. */
export function Assumed({ sure }: { sure: Sure }) {
  const set = useSureness(sure);
  const { terms } = sure;
  return (
    <section className="panel" aria-label="What is assumed">
      <header>
        <h2>What is assumed</h2>
      </header>
      <div className={styles.shared}>
        <Field
          label="All work goes alike, of 100 outcomes"
          row
          value={terms.shared}
          onKeep={(text) => set({ ...terms, shared: typedNumber(text) })}
        />
        <Field
          label="Seed"
          row
          value={String(terms.seed)}
          hint="the same seed draws the same outcomes"
          onKeep={(text) => set({ ...terms, seed: /^\s*\d{1,6}\s*$/.test(text) ? Number(text) : -1 })}
        />
      </div>
      <div className={styles.assumed}>
        <p>
          <b>Uniform:</b> anything between least and most is as likely as anything else between them.
        </p>
        <p>
          In {terms.shared} of 100 outcomes a piece of work goes as the whole job goes, otherwise by itself: two pieces
          move together with a <b>correlation of {sure.correlation}</b>.
        </p>
        <p>
          Hours move labour and machines, prices move goods and subcontracts. Travel, charges, allowances and fees
          stand, and so do the packs that are bought.
          {!sure.said && " Nobody has said yet how sure this job is: these are numbers to begin with."}
        </p>
      </div>
    </section>
  );
}
