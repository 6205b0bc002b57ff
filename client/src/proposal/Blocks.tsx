import type { Schemas } from "../api/client";
import { RowFigure } from "../figure/Figure";
import styles from "./proposal.module.css";

type Block = Schemas["Block"];

/** Renders the same blocks as the PDF. */
export function Blocks({ blocks }: { blocks: Block[] }) {
  return (
    <article className={styles.paper}>
      {blocks.map((block, i) => (
        <One key={i} block={block} />
      ))}
    </article>
  );
}

function One({ block }: { block: Block }) {
  switch (block.type) {
    case "letterhead":
      return (
        <>
          <div className={styles.top}>
            <div>
              <strong>{block.firm}</strong>
              <span>{block.firmAddress}</span>
            </div>
            <div>
              <span className={styles.ink}>{block.reference}</span>
              <span>{block.validity}</span>
            </div>
          </div>
          <p className={styles.to}>
            {block.customer}
            <span>{block.customerAddress}</span>
          </p>
          <h2 className="title">{block.title}</h2>
          <p className={styles.subtitle}>{block.subtitle}</p>
        </>
      );
    case "heading":
      return block.level === 1 ? <h2>{block.text}</h2> : <h3>{block.text}</h3>;
    case "paragraph":
      return <p>{block.text}</p>;
    case "bullets":
      return (
        <ul>
          {block.items.map((item, i) => (
            <li key={i}>
              {item.strong} {item.text}
            </li>
          ))}
        </ul>
      );
    case "priceTable":
      return <PriceTable table={block} />;
    case "signature":
      return (
        <div className={styles.sign}>
          {[block.for || "the customer", block.by].map((who) => (
            <div key={who}>
              For {who}
              <span>Date</span>
            </div>
          ))}
        </div>
      );
  }
}

function PriceTable({ table }: { table: Schemas["BlockPriceTable"] }) {
  return (
    <table>
      <caption>amounts in {table.currency}</caption>
      <tbody>
        {table.rows.map((row, i) => (
          <tr key={i} className={styles[row.kind]}>
            <th scope="row" colSpan={row.kind === "group" ? 2 : 1}>
              {row.label}
              {row.detail && <small>{row.detail}</small>}
            </th>
            {row.kind !== "group" && (
              <td>
                <RowFigure row={row} />
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
