import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import styles from "./invoices.module.css";
import { CreditDialog, MailInvoice, PaymentDialog } from "./InvoiceDialogs";
import { MoneyRow, MoneyRows } from "./MoneyRows";
import { NewInvoice } from "./NewInvoice";
import { TermsDialog } from "./TermsDialog";
import { useInvoices } from "./useDeliver";

type Row = Schemas["InvoiceRow"];

/** What was billed of the contract, what was paid, and what is owed. */
export function Invoices() {
  const { job, did, act, wrong } = useInvoices();
  const { data } = useQuery(askJob.invoices(job));
  const [making, setMaking] = useState<{ step: number | null } | null>(null);
  const [paying, setPaying] = useState<Row | null>(null);
  const [crediting, setCrediting] = useState<Row | null>(null);
  const [mailing, setMailing] = useState<{ row: Row; reminder: string | null } | null>(null);
  const [terms, setTerms] = useState(false);
  if (!data) return <div aria-busy="true" aria-label="Reckoning what is billed" />;
  const bill = (step: number | null) => setMaking({ step });
  return (
    <div className={styles.columns}>
      <section className={`panel ${styles.list}`} aria-label="Invoices">
        <header>
          <h2>Invoices and credit notes</h2>
          <span className="note">what was issued is never changed; a credit note mends it</span>
          {!data.stops && (
            <Button variant="contained" onClick={() => bill(null)}>
              New invoice
            </Button>
          )}
        </header>
        {wrong && (
          <p className="pad error" role="alert">
            {wrong}
          </p>
        )}
        {data.invoices.length === 0 && (
          <p className="pad note">
            {data.stops ||
              (data.byMonth
                ? "Nothing was billed yet. An invoice bills a month of the contract year, or an amount on account; the last one closes the year on the visits that were done."
                : "Nothing was billed yet. An invoice bills a step of the payment plan, the work done to date, an amount on account, or all that is open.")}
          </p>
        )}
        {data.invoices.length > 0 && (
          <table>
            <thead>
              <tr>
                <th scope="col">Number</th>
                <th scope="col">What it bills</th>
                <th scope="col">Issued</th>
                <th scope="col">Due</th>
                <th scope="col" className={styles.n}>
                  With tax
                </th>
                <th scope="col" className={styles.n}>
                  Open
                </th>
                <th scope="col">How it stands</th>
              </tr>
            </thead>
            <tbody>
              {data.invoices.map((row) => (
                <Fragment key={row.id}>
                  <tr>
                    <th scope="row">{row.number}</th>
                    <td>{row.label}</td>
                    <td>{row.issued}</td>
                    <td>{row.due}</td>
                    <td className={styles.n}>{row.total}</td>
                    <td className={styles.n}>
                      {row.open}
                      {row.held && <small>{row.held} retained</small>}
                    </td>
                    <td className={row.isLate ? styles.late : undefined}>{row.says}</td>
                  </tr>
                  <tr className={styles.under}>
                    <td />
                    <td colSpan={6}>
                      {row.payments.map((payment) => (
                        <p key={payment.id}>
                          {payment.amount} on {payment.day}
                          {payment.how && `, ${payment.how}`}{" "}
                          {payment.stands && (
                            <button
                              type="button"
                              className="link"
                              aria-label={`Take back ${payment.amount} of ${row.number}`}
                              onClick={() => void act(change.takePaymentBack(job.id, payment.id, newId()))}
                            >
                              take back
                            </button>
                          )}
                        </p>
                      ))}
                      {row.early && <p>{row.early}</p>}
                      {row.eLacks && <p className="note">No e-invoice: {row.eLacks}</p>}
                      {row.reminders.map((reminder) => (
                        <p key={reminder.id}>
                          {reminder.words}{" "}
                          <a
                            href={`/api/jobs/${job.id}/deliver/invoices/reminders/${reminder.id}/pdf`}
                            download
                            aria-label={`PDF of ${reminder.words} of ${row.number}`}
                          >
                            PDF
                          </a>{" "}
                          <button
                            type="button"
                            className="link"
                            aria-label={`Mail ${reminder.words} of ${row.number}`}
                            onClick={() => setMailing({ row, reminder: reminder.id })}
                          >
                            mail
                          </button>
                        </p>
                      ))}
                      <p className={styles.acts}>
                        <button
                          type="button"
                          className="act"
                          aria-label={`Mail ${row.number}`}
                          onClick={() => setMailing({ row, reminder: null })}
                        >
                          Mail
                        </button>
                        {row.isLate && (
                          <button
                            type="button"
                            className="act"
                            aria-label={`Remind of ${row.number}`}
                            onClick={() => void act(change.remind(job.id, row.id, newId()))}
                          >
                            Remind
                          </button>
                        )}
                        {row.eInvoice && (
                          <a
                            className="act"
                            href={`/api/jobs/${job.id}/deliver/invoices/${row.id}/e-invoice.xml`}
                            aria-label={`E-invoice ${row.number}`}
                            download
                          >
                            E-invoice
                          </a>
                        )}
                        <a className="act" href={`/api/jobs/${job.id}/deliver/invoices/${row.id}/pdf`} download>
                          PDF
                        </a>
                        {!row.isCredit && (
                          <button
                            type="button"
                            className="act"
                            aria-label={`Payment for ${row.number}`}
                            onClick={() => setPaying(row)}
                          >
                            Payment
                          </button>
                        )}
                        {row.left.length > 0 && (
                          <button
                            type="button"
                            className="act"
                            aria-label={`Credit ${row.number}`}
                            onClick={() => setCrediting(row)}
                          >
                            Credit
                          </button>
                        )}
                      </p>
                    </td>
                  </tr>
                </Fragment>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <div className={styles.right}>
        <section className="panel" aria-label="How the contract stands">
          <header>
            <h2>How the contract stands</h2>
            <span className="note">amounts in {data.currency}</span>
          </header>
          {data.ahead && <p className="pad error">Billed ahead of the contract sum by {data.ahead}.</p>}
          <MoneyRows rows={data.sums} />
        </section>
        <section className="panel" aria-label="Terms of paying">
          <header>
            <h2>Terms of paying</h2>
            <button type="button" className="act note" onClick={() => setTerms(true)}>
              Change
            </button>
          </header>
          <p className="pad">
            {data.termsSay} <span className="note">{data.ownTerms ? "Of this job." : "As the firm has them."}</span>
          </p>
          {data.releases.length > 0 && (
            <MoneyRows label="Releases" rows={[]}>
              {data.releases.map((release) => (
                <MoneyRow
                  key={release.id}
                  label={release.words}
                  detail={
                    <a
                      href={`/api/jobs/${job.id}/deliver/invoices/releases/${release.id}/pdf`}
                      download
                      aria-label={`PDF of ${release.words}`}
                    >
                      PDF
                    </a>
                  }
                >
                  <b>{release.amount}</b>
                </MoneyRow>
              ))}
            </MoneyRows>
          )}
          {data.mayRelease && (
            <p className="pad">
              <Button
                variant="outlined"
                onClick={() => void act(change.askRelease(job.id, { id: newId(), amount: data.mayRelease }))}
              >
                Ask for the release of {data.mayRelease}
              </Button>
            </p>
          )}
          {data.releaseWaits && <p className="pad note">{data.releaseWaits}</p>}
        </section>
        {data.steps.length > 0 && (
          <section className="panel" aria-label={data.byMonth ? "Months of the contract year" : "Payment plan"}>
            <header>
              <h2>{data.byMonth ? "Months of the contract year" : "Payment plan"}</h2>
              <span className="note">as it was signed</span>
            </header>
            <MoneyRows rows={[]}>
              {data.steps.map((step) => (
                <MoneyRow
                  key={step.number}
                  label={step.when}
                  detail={step.total ? `${step.net} before tax, ${step.total} with it` : `${step.net} before tax`}
                >
                  {step.billed ? (
                    <span className="note">{step.billed}</span>
                  ) : (
                    !data.stops && (
                      <button
                        type="button"
                        className="act"
                        aria-label={`Bill ${step.when}`}
                        onClick={() => bill(step.number)}
                      >
                        Bill it
                      </button>
                    )
                  )}
                </MoneyRow>
              ))}
            </MoneyRows>
          </section>
        )}
      </div>
      {making && <NewInvoice data={data} step={making.step} onClose={() => setMaking(null)} />}
      {paying && <PaymentDialog row={paying} data={data} did={did} onClose={() => setPaying(null)} />}
      {terms && <TermsDialog terms={data.terms} currency={data.currency} did={did} onClose={() => setTerms(false)} />}
      {mailing && <MailInvoice {...mailing} did={did} onClose={() => setMailing(null)} />}
      {crediting && <CreditDialog row={crediting} did={did} onClose={() => setCrediting(null)} />}
    </div>
  );
}
