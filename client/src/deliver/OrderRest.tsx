import type { Schemas } from "../api/client";
import styles from "./deliver.module.css";

/** What a work order has beside its lines. */
export function OrderRest({ order }: { order: Schemas["OrderView"] }) {
  return (
    <>
      <Rows title="For the job as a whole" rows={order.once} />
      <Rows title="Goods for the job" rows={order.supplies} />
      <Rows title="To be mixed" rows={order.mixes} />
      <Sentences title="Not in this work" sentences={order.leftOut} />
      <Sentences title="The customer does" sentences={order.theirs} />
    </>
  );
}

function Rows({ title, rows }: { title: string; rows: readonly Schemas["OrderRow"][] }) {
  if (rows.length === 0) return null;
  return (
    <section className={styles.group} aria-label={title}>
      <header>
        <h4>{title}</h4>
      </header>
      <ul>
        {rows.map((row) => (
          <li key={row.name + row.detail} className={styles.plain}>
            <div>
              <p className={styles.name}>{row.name}</p>
              <p className="note">{row.detail}</p>
            </div>
            <span className={styles.n}>{row.amount}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Sentences({ title, sentences }: { title: string; sentences: readonly string[] }) {
  if (sentences.length === 0) return null;
  return (
    <section className={styles.group} aria-label={title}>
      <header>
        <h4>{title}</h4>
      </header>
      <ul className={styles.sentences}>
        {sentences.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </section>
  );
}
