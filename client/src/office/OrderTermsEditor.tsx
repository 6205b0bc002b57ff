import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import { freeName } from "../controls/freeName";
import { useTold } from "../controls/useTold";
import styles from "./office.module.css";
import { Series, useNumbers } from "./Series";

/** How the firm orders: numbers, where goods go, and from whom it buys. */
export function OrderTermsEditor() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.orderTerms);
  const numbers = useNumbers(true);
  const [wrong, tell] = useTold();
  const keep = async (part: Partial<Schemas["OrderTerms"]>) => {
    try {
      await change.orderTerms({ was: data!, now: { ...data!, ...part } });
    } finally {
      await Promise.all([
        queries.invalidateQueries(ask.orderTerms),
        queries.invalidateQueries({ queryKey: ["numbers"] }),
        queries.invalidateQueries({ queryKey: ["deliver"] }),
      ]);
    }
  };
  if (!data || !numbers) return null;
  const set = (at: number, part: Partial<Schemas["Supplier"]>) =>
    keep({ suppliers: data.suppliers.map((s, i) => (i === at ? { ...s, ...part } : s)) });
  return (
    <section className={`panel ${styles.wide}`} aria-label="Purchase orders and suppliers">
      <header>
        <h2>Purchase orders and suppliers</h2>
        <span className="note">the next is {numbers.next}</span>
        <button
          type="button"
          className={`act ${styles.end}`}
          onClick={() => {
            const name = freeName("New supplier", (n) => data.suppliers.some((s) => s.name === n));
            tell(keep({ suppliers: [...data.suppliers, { name, mail: "", address: "", account: "" }] }));
          }}
        >
          Add a supplier
        </button>
      </header>
      <div className="pad">
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
        <div className={styles.pair}>
          <Field
            label="How orders are numbered"
            hint="{number} or {number:3}, and {year} where each year begins at 1; never like an invoice"
            value={data.numbers}
            onKeep={async (now) => {
              await keep({ numbers: now.trim() });
            }}
          />
          <Field
            label="Goods go to"
            hint="empty for the site of each job"
            value={data.deliverTo}
            onKeep={async (now) => {
              await keep({ deliverTo: now.trim() });
            }}
          />
          <Field
            label="At the end of an order"
            sentence
            rows={3}
            value={data.words}
            onKeep={async (words) => {
              await keep({ words });
            }}
          />
        </div>
        <Series orders numbers={numbers} />
      </div>
      {data.suppliers.length === 0 ? (
        <p className="pad note">
          Names of suppliers stand with the materials of the Book. Add one here to keep its e-mail address, where orders
          go, and your account with it.
        </p>
      ) : (
        <table className="list">
          <thead>
            <tr>
              <th scope="col">Supplier, as the Book names it</th>
              <th scope="col">E-mail for orders</th>
              <th scope="col">Address</th>
              <th scope="col">Our account</th>
              <th scope="col" />
            </tr>
          </thead>
          <tbody>
            {data.suppliers.map((supplier, at) => (
              <tr key={at}>
                <td>
                  <Field
                    bare
                    label="Name of the supplier"
                    value={supplier.name}
                    onKeep={(name) => set(at, { name: name.trim() })}
                  />
                </td>
                <td>
                  <Field
                    bare
                    label={`E-mail of ${supplier.name}`}
                    value={supplier.mail}
                    onKeep={(mail) => set(at, { mail: mail.trim() })}
                  />
                </td>
                <td>
                  <Field
                    bare
                    label={`Address of ${supplier.name}`}
                    value={supplier.address}
                    onKeep={(address) => set(at, { address: address.trim() })}
                  />
                </td>
                <td>
                  <Field
                    bare
                    label={`Account with ${supplier.name}`}
                    value={supplier.account}
                    onKeep={(account) => set(at, { account: account.trim() })}
                  />
                </td>
                <td>
                  <button
                    type="button"
                    className="act"
                    aria-label={`Remove ${supplier.name}`}
                    onClick={() => tell(keep({ suppliers: data.suppliers.filter((_, i) => i !== at) }))}
                  >
                    Remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
