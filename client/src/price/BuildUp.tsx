import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { CostLists } from "./CostLists";
import { CrewTerms } from "./CrewTerms";
import { PaymentTerms } from "./PaymentTerms";
import { PolicyChoice } from "./PolicyChoice";
import { SectionTerms } from "./SectionTerms";
import { DiscountTerms, GuardTerms, OnCost, StepTerms, TaxTerms, bases } from "./TermFields";
import { TypeAny } from "./TypeAny";
import { useTermsHeld } from "./useTermsHeld";
import { Ways } from "./Ways";
import styles from "./price.module.css";

/** From cost to what the customer pays, step by step, and the terms that lead there. */
export function BuildUp({ whole }: { whole: Schemas["PriceView"] }) {
  const [, { job }] = useJob();
  // Of a round, each occurrence has a build-up of its own; the whole is its first year.
  const [occurrence, setOccurrence] = useState("");
  const of = whole.occurrences.some((o) => o.id === occurrence) ? occurrence : "";
  const one = useQuery({ ...askJob.price(job, of), enabled: of !== "" });
  const price = of === "" ? whole : (one.data ?? whole);
  const [choosing, setChoosing] = useState(false);
  const terms = job.pricing;
  const held = useTermsHeld();
  const { currency } = job.info;
  const basis = bases.find(([b]) => b === terms.basis)![1];
  return (
    <>
      <div className={styles.price}>
        <section className="panel" aria-label="How the price is built">
          <header>
            <h2>How the price is built</h2>
            <span className="note">
              <button type="button" className="act" onClick={() => setChoosing(true)}>
                Priced by {basis}: compare or change
              </button>
            </span>
          </header>
          {whole.occurrences.length > 0 && (
            <div className="pad">
              <Choice
                label="Build-up of"
                value={of}
                none="the first year"
                options={whole.occurrences.map((o) => [o.id, `one occurrence: ${o.name}`] as const)}
                onChoose={setOccurrence}
              />
            </div>
          )}
          <ul className={styles.steps}>
            {price.steps.map((step) => (
              <li key={step.key} className={styles[step.kind]}>
                <span>
                  <b>{step.label}</b>
                  <small>{step.note}</small>
                </span>
                <span className={styles.track} aria-hidden="true">
                  <i style={{ left: `${step.from}%`, width: `${step.width}%` }} />
                </span>
                <Figure figure={step.amount} label={step.label} />
              </li>
            ))}
          </ul>
          {price.shortfalls.length > 1 && (
            <details className={styles.shortfalls}>
              <summary>What was raised to its least charge</summary>
              <ul className="rows">
                {price.shortfalls.map((s, i) => (
                  <li key={i}>
                    {s.what}, {s.was} under {s.least} <Figure figure={s.by} label={`${s.what}, raised by`} />
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
        <div className={styles.right}>
          <TypeAny price={whole} />
          <section className="panel" aria-label="Where that leaves us">
            <header>
              <h2>Where that leaves us</h2>
            </header>
            <ul className="rows">
              {[...price.readouts, ...price.time].map((r) => (
                <li key={r.label}>
                  {r.label} <Figure figure={r.figure} label={r.label} />
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
      <div className={styles.columns}>
        <section className="panel" aria-label="On the cost">
          <header>
            <h2>On the cost</h2>
          </header>
          <PolicyChoice />
          <OnCost held={held} currency={currency} />
        </section>
        <section className="panel" aria-label="After the basis">
          <header>
            <h2>Least charges, brackets, fees, rounding</h2>
          </header>
          <StepTerms held={held} currency={currency} />
        </section>
        <div className={styles.stack}>
          <section className="panel" aria-label="Discounts">
            <header>
              <h2>Discounts and adjustment</h2>
              <span className="note">in order, each on what is left</span>
            </header>
            <DiscountTerms held={held} currency={currency} />
          </section>
          <section className="panel" aria-label="Taxes">
            <header>
              <h2>Taxes</h2>
            </header>
            <TaxTerms held={held} ofJob ofCustomer={price.ofCustomer} />
          </section>
          <section className="panel" aria-label="Payment steps">
            <header>
              <h2>Payment steps</h2>
              <span className="note">as the proposal says them</span>
            </header>
            <PaymentTerms held={held} currency={currency} />
          </section>
        </div>
      </div>
      <div className={styles.columns}>
        <SectionTerms />
        <div className={styles.stack}>
          <CrewTerms setUps={price.setUps} />
          <section className="panel" aria-label="Guard">
            <header>
              <h2>Guard</h2>
              <span className="note">what the firm must earn</span>
            </header>
            <GuardTerms held={held} />
            <p className={styles.words}>
              <a href={`/api/jobs/${job.id}/workings.xlsx`} download>
                All workings as a workbook
              </a>
            </p>
          </section>
        </div>
      </div>
      <div className={styles.stack}>
        <CostLists
          roles={price.roles}
          buying={price.buying}
          mixed={price.mixed}
          equipment={price.equipment}
          others={price.others}
        />
      </div>
      {choosing && <Ways onClose={() => setChoosing(false)} />}
    </>
  );
}
