import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import styles from "./office.module.css";

type Seller = Schemas["EParty"];

/** What e-invoices say of the firm; while it has no name here, none are made. */
export function EInvoiceEditor() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.eInvoices);
  const keep = (part: Partial<Schemas["EInvoiceTerms"]>) =>
    change
      .eInvoices({ was: data!, now: { ...data!, ...part } })
      .finally(() => queries.invalidateQueries(ask.eInvoices));
  if (!data) return null;
  const field = (name: keyof Seller, label: string, hint?: string) => (
    <Field
      label={label}
      hint={hint}
      value={data.seller[name] ?? ""}
      onKeep={async (now) => {
        await keep({ seller: { ...data.seller, [name]: now.trim() } });
      }}
    />
  );
  return (
    <section className={`panel ${styles.wide}`} aria-label="E-invoices">
      <header>
        <h2>E-invoices</h2>
        <span className="note">EN 16931, as UBL 2.1, beside the PDF of what is issued from now on</span>
      </header>
      <div className="pad">
        <div className={styles.pair}>
          {field("name", "Seller", "the firm as it is registered; empty: no e-invoices")}
          {field("taxNumber", "VAT number", "with its country before it, like IE1234567T")}
          {field("street", "Street")}
          {field("registration", "Registration", "number in the company register")}
          {field("postCode", "Post code")}
          {field("mail", "E-mail", "also the electronic address")}
          {field("city", "City")}
          <Field
            label="Paid into"
            hint="IBAN; empty for nothing said"
            value={data.account}
            onKeep={async (account) => {
              await keep({ account: account.trim() });
            }}
          />
          {field("country", "Country", "two letters, like IE")}
        </div>
        <p className="note">
          The customer’s country, and their VAT number where they owe the tax, stand with the customer.
        </p>
      </div>
    </section>
  );
}
