import { Drawn } from "../src/controls/SignaturePad";
import styles from "./customer.module.css";
import type { Link, Page } from "./link";
import { StatementRows } from "./Sign";

/** What was agreed, with the names under it. */
export function Agreed({ page, link }: { page: Page; link: Link }) {
  return (
    <section className={styles.agreed} aria-label="What was agreed">
      <h2>What was agreed</h2>
      <p>{page.statement.sentence}</p>
      {page.recorded && <p>{page.recorded}</p>}
      <StatementRows statement={page.statement} />
      <div className={styles.names}>
        {page.names.map((name, i) => (
          <figure key={i}>
            {name.drawn ? (
              <Drawn drawn={name.drawn} label={`${name.name}, drawn`} />
            ) : (
              <p className={styles.typedName}>{name.name}</p>
            )}
            <figcaption>
              {name.name}
              {name.for && `, for ${name.for}`}
              <small>{name.at}</small>
            </figcaption>
          </figure>
        ))}
      </div>
      <p>
        <a href={link.signed}>{page.recorded ? "The PDF with what was agreed" : "The signed PDF"}</a>
      </p>
    </section>
  );
}
