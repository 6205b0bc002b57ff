import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import { Backups } from "./Backups";
import { BrandEditor } from "./BrandEditor";
import { MailServer } from "./MailServer";
import { EInvoiceEditor } from "./EInvoiceEditor";
import { InvoiceTermsEditor } from "./InvoiceTermsEditor";
import { OrderTermsEditor } from "./OrderTermsEditor";
import { Messages } from "./Messages";
import { Outbox } from "./Outbox";
import { PatternsEditor } from "./PatternsEditor";
import { Policies } from "./Policies";
import { UsualPlacesEditor } from "./UsualPlacesEditor";
import { Choice } from "../controls/Choice";
import { wholeOr } from "../controls/wholeOr";
import styles from "./office.module.css";
import { change } from "../api/changes";

type Company = Schemas["Company"];

/** What the firm has set: itself, how it measures, its usual sizes and places. Everything saves by itself. */
export function OfficePage() {
  const queries = useQueryClient();
  const { data: company } = useQuery(ask.company);
  const { data: rules } = useQuery(ask.rules);
  const { data: sizes } = useQuery(ask.usualSizes);
  const { data: zones } = useQuery(ask.zones);
  const { data: crew } = useQuery(ask.crew);

  async function set(part: Partial<Company>) {
    try {
      await change.company({ was: company!, now: { ...company!, ...part } });
    } finally {
      // Also after a conflict: what stands there now is shown beside what was typed.
      await queries.invalidateQueries(ask.company);
    }
  }

  async function setCrew(part: Partial<Schemas["CrewTerms"]>) {
    try {
      await change.crew({ was: crew!, now: { ...crew!, ...part } });
    } finally {
      await queries.invalidateQueries(ask.crew);
    }
  }

  if (!company || !rules || !sizes || !crew)
    return <main className="page" aria-busy="true" aria-label="Opening the office" />;
  return (
    <main className={`page ${styles.office}`}>
      <h1>
        Office <Link to="/office/crews">Crews</Link> <Link to="/office/stock">Stock list</Link>{" "}
        <Link to="/office/bank">Bank</Link>
      </h1>
      <section className="panel" aria-label="The firm">
        <header>
          <h2>The firm</h2>
        </header>
        <div className="pad">
          <Field label="Name" value={company.name} onKeep={(name) => set({ name })} />
          <Field label="Address" value={company.address} onKeep={(address) => set({ address })} />
          <Field label="Currency" value={company.currency} onKeep={(currency) => set({ currency })} />
          <Field
            label="Time zone"
            hint="in which its days begin, for dates of jobs and documents"
            value={company.zone}
            list={zones}
            onKeep={(zone) => set({ zone: zone.trim() })}
          />
        </div>
      </section>
      <section className="panel" aria-label="What new jobs begin with">
        <header>
          <h2>What new jobs begin with</h2>
          <span className="note">each job may say otherwise</span>
        </header>
        <div className="pad">
          <Choice
            label="Units"
            value={company.units}
            options={[
              ["feet", "feet and inches"],
              ["metres", "metres"],
            ]}
            onChoose={(units) => void set({ units })}
          />
          <Choice
            label="Openings"
            value={company.deduct}
            options={rules.map((r) => [r.name, r.source ? `${r.label} (${r.source})` : r.label])}
            lost={company.deduct}
            onChoose={(deduct) => void set({ deduct })}
          />
          <Field
            label="Own limits for walls; floors; lengths"
            hint="like over 10 ft2; 5 ft2; 3 ft"
            value={company.deduct.startsWith("over ") ? company.deduct : ""}
            onKeep={(deduct) => set({ deduct: deduct.trim() || "net" })}
          />
          <Field
            label="Crew, people"
            value={String(crew.size)}
            onKeep={(size) => setCrew({ size: wholeOr(size) as number })}
          />
          <Field
            label="Crew, hours a day"
            unit="h"
            value={crew.hoursPerDay}
            onKeep={(hoursPerDay) => setCrew({ hoursPerDay: hoursPerDay.trim() })}
          />
        </div>
      </section>
      <section className="panel" aria-label="Usual sizes of doors and windows">
        <header>
          <h2>Usual sizes of doors and windows</h2>
          <span className="note">offered in the tape line</span>
        </header>
        <div className="pad">
          <Field
            label="One a line, with units, as in a tape line"
            rows={8}
            value={sizes.join("\n")}
            onKeep={async (text) => {
              const lines = text.split("\n").map((l) => l.trim());
              try {
                await change.usualSizes({ was: { sizes }, now: { sizes: lines.filter(Boolean) } });
              } finally {
                await queries.invalidateQueries(ask.usualSizes);
              }
            }}
          />
        </div>
      </section>
      <Policies currency={company.currency} />
      <BrandEditor company={company} />
      <PatternsEditor />
      <Messages />
      <InvoiceTermsEditor />
      <EInvoiceEditor />
      <OrderTermsEditor />
      <MailServer />
      <Outbox />
      <Backups />
      <UsualPlacesEditor />
    </main>
  );
}
