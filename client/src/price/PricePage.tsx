import { ToggleButton, ToggleButtonGroup } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { useSearchParams } from "react-router";
import { Field } from "../controls/Field";
import { Figure } from "../figure/Figure";
import { FigureWords } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import { CrewTerms } from "./CrewTerms";
import { Choice } from "../controls/Choice";
import styles from "./price.module.css";
import { askJob } from "../api/jobQueries";

/** The Price station: from cost to what the customer pays, and the terms that lead there. */
export function PricePage() {
  const [, { job }] = useJob();
  const { data: price } = useQuery(askJob.price(job));
  const [areaOf, setAreaOf] = useState("");
  if (!price) return null;
  const area = price.perArea.find((a) => a.label === areaOf) ?? price.perArea[0];
  return (
    <div className={styles.price}>
      <div className={styles.left}>
        <section className="panel" aria-label="How the price is built">
          <header>
            <h2>How the price is built</h2>
            <span className="note">
              <a href={`/api/jobs/${job.id}/workings.xlsx`} download>
                All workings as a workbook
              </a>{" "}
              · {job.info.currency}
            </span>
          </header>
          <ul className={styles.steps}>
            {price.steps.map((step) => (
              <li key={step.label} className={styles[step.kind]}>
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
        </section>
        <section className="panel" aria-label="Labour">
          <header>
            <h2>Labour by role</h2>
          </header>
          <table className="list">
            <thead>
              <tr>
                <th>Role</th>
                <th className="n">Hours</th>
                <th className="n">Loaded cost</th>
                <th className="n">Cost</th>
              </tr>
            </thead>
            <tbody>
              {price.roles.map((r) => (
                <tr key={r.name}>
                  <td>{r.name}</td>
                  <td className="n">
                    <Figure figure={r.hours} label={`${r.name}, hours`} />
                  </td>
                  <td className="n">
                    <Figure figure={r.loadedCost} label={`${r.name}, loaded cost`} />
                  </td>
                  <td className="n">
                    <Figure figure={r.cost} label={`${r.name}, cost`} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section className="panel" aria-label="Materials">
          <header>
            <h2>Materials</h2>
            <span className="note">packs are bought once for the whole job</span>
          </header>
          <table className="list">
            <thead>
              <tr>
                <th>Material</th>
                <th className="n">Needed</th>
                <th>Packs to buy</th>
                <th className="n">Bought</th>
                <th className="n">Left over</th>
                <th className="n">Cost bought</th>
                <th className="n">Cost by need</th>
              </tr>
            </thead>
            <tbody>
              {price.buying.map((b) => {
                const name = b.colour ? `${b.name}, ${b.colour}` : b.name;
                return (
                  <tr key={name}>
                    <td>{name}</td>
                    <td className="n">
                      <Figure figure={b.need} label={`${name}, needed`} />
                    </td>
                    <td>{b.packs ? <FigureWords figure={b.bought} words={b.packs} /> : "none"}</td>
                    <td className="n">
                      <Figure figure={b.bought} label={`${name}, bought`} />
                    </td>
                    <td className="n">
                      <Figure figure={b.leftover} label={`${name}, left over`} />
                    </td>
                    <td className="n">
                      <Figure figure={b.boughtCost} label={`${name}, cost bought`} />
                      {b.delivery && (
                        <small>
                          + <Figure figure={b.delivery} label={`${name}, delivery`} /> delivery
                        </small>
                      )}
                    </td>
                    <td className="n">
                      <Figure figure={b.needCost} label={`${name}, cost by need`} />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {price.mixed.map((m) => {
            const name = m.colour ? `${m.name}, ${m.colour}` : m.name;
            return (
              <p key={name} className="note">
                <Figure figure={m.quantity} label={`${name}, mixed`} /> of {name} are mixed from{" "}
                {m.parts.map((p, i) => (
                  <Fragment key={i}>
                    {i > 0 && (i === m.parts.length - 1 ? " and " : ", ")}
                    <Figure figure={p.amount} label={`${name}: ${p.name}`} /> {p.name}
                    {p.free && " (free)"}
                  </Fragment>
                ))}
                .
              </p>
            );
          })}
        </section>
        {price.equipment.length > 0 && (
          <section className="panel" aria-label="Equipment">
            <header>
              <h2>Equipment</h2>
              <span className="note">while the crew works, by the day and visit</span>
            </header>
            <ul className="rows">
              {price.equipment.map((e) => (
                <li key={e.name}>
                  {e.name}
                  <span>
                    {e.hours && <Figure figure={e.hours} label={`${e.name}, hours`} />} ·{" "}
                    <Figure figure={e.cost} label={`${e.name}, cost`} />
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {price.others.length > 0 && (
          <section className="panel" aria-label="Subcontracts, charges, price-only items">
            <header>
              <h2>Subcontracts, charges, price-only items</h2>
            </header>
            <ul className="rows">
              {price.others.map((o) => (
                <li key={o.name}>
                  {o.name}
                  <span>
                    {o.hours && (
                      <>
                        <Figure figure={o.hours} label={`${o.name}, how much`} /> ·{" "}
                      </>
                    )}
                    <Figure figure={o.cost} label={`${o.name}, money`} />
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <div className={styles.right}>
        <Terms hasOthers={price.others.length > 0} />
        <CrewTerms setUps={price.setUps} />
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
            {area && (
              <li>
                <Choice
                  label="Price per area of"
                  row
                  value={area.label}
                  options={price.perArea.map((a) => [a.label, a.label] as const)}
                  onChoose={setAreaOf}
                />
                <Figure figure={area.figure} label={`Price per area, ${area.label.toLowerCase()}`} />
              </li>
            )}
          </ul>
          <p className={styles.words}>
            {job.tally.marginWords}. A margin of {price.goal} would need{" "}
            <Figure figure={price.atGoal} label="Price at the target margin" /> before tax.
          </p>
        </section>
      </div>
    </div>
  );
}

type PercentField =
  | "labourMarkup"
  | "materialMarkup"
  | "equipmentMarkup"
  | "subcontractMarkup"
  | "fixedMarkup"
  | "overhead"
  | "contingency"
  | "profit"
  | "targetMargin"
  | "taxRate";

function Terms({ hasOthers }: { hasOthers: boolean }) {
  const [open, { job }] = useJob();
  const [search] = useSearchParams();
  const terms = job.pricing;
  const set = (field: string, was: unknown, now: unknown) =>
    open.send({ type: "setPricing", field, was, now } as never);
  const tell = (field: string, was: unknown, now: unknown) =>
    void open.tell({ type: "setPricing", field, was, now } as never);
  const percent = (field: PercentField, label: string) => (
    <li key={field}>
      <Field
        label={label}
        row
        unit="%"
        value={terms[field]}
        focus={search.get("field") === field}
        onKeep={(text) => set(field, terms[field], text.trim().replace(",", "."))}
      />
    </li>
  );
  return (
    <section className="panel" aria-label="Terms">
      <header>
        <h2>Terms of this job</h2>
      </header>
      <div className="pad">
        <span className="note">Price</span>
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={terms.basis}
          aria-label="Price by"
          onChange={(_, v) => v && tell("basis", terms.basis, v)}
        >
          <ToggleButton value="markup">by markup</ToggleButton>
          <ToggleButton value="targetMargin">by target margin</ToggleButton>
        </ToggleButtonGroup>
        <span className="note">Materials cost</span>
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={terms.materialCost}
          aria-label="Material costs"
          onChange={(_, v) => v && tell("materialCost", terms.materialCost, v)}
        >
          <ToggleButton value="purchase">packs bought</ToggleButton>
          <ToggleButton value="need">exact need</ToggleButton>
        </ToggleButtonGroup>
      </div>
      <ul className="rows">
        {terms.basis === "markup"
          ? [
              percent("labourMarkup", "Markup on labour"),
              percent("materialMarkup", "Markup on materials"),
              percent("equipmentMarkup", "Markup on equipment"),
              ...(hasOthers
                ? [percent("subcontractMarkup", "Markup on subcontracts"), percent("fixedMarkup", "Markup on charges")]
                : []),
            ]
          : percent("targetMargin", "Target margin")}
        {percent("overhead", "Overhead")}
        {percent("contingency", "Contingency")}
        {terms.basis === "markup" && percent("profit", "Profit")}
        {percent("taxRate", "Tax rate")}
      </ul>
      <div className="pad">
        <Choice
          label="Tax falls on"
          value={terms.taxOn}
          options={[
            ["materials", "materials' part of the price"],
            ["price", "the whole price"],
            ["nothing", "nothing: no tax charged"],
          ]}
          onChoose={(now) => tell("taxOn", terms.taxOn, now)}
        />
      </div>
    </section>
  );
}
