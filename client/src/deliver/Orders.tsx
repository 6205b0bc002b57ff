import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import styles from "./buying.module.css";
import { CloseOrder, MailOrder, ReceiveGoods } from "./OrderDialogs";
import { useBuying } from "./useDeliver";

type Row = Schemas["PurchaseRow"];

/** Orders that were placed, with what came of each. */
export function Orders({ data }: { data: Schemas["BuyingView"] }) {
  const { job, did, act, wrong } = useBuying();
  const [doing, setDoing] = useState<{ what: "receive" | "mail" | "close"; row: Row } | null>(null);
  const close = () => setDoing(null);
  return (
    <section className="panel" aria-label="Orders">
      <header>
        <h2>Orders</h2>
        <span className="note">{data.orders.length === 0 ? "none yet" : ""}</span>
      </header>
      {wrong && (
        <p className="pad error" role="alert">
          {wrong}
        </p>
      )}
      {data.orders.map((row) => (
        <article key={row.id} className={styles.placed} aria-label={`Order ${row.number}`}>
          <h3>
            <span>{row.number}</span> <span className="note">{row.supplier}</span>
            <b className={row.isLate ? styles.late : undefined}>{row.says}</b>
          </h3>
          <p className="note">
            {row.placed}
            {row.wanted && ` · wanted by ${row.wanted}`} · {row.total}
            {row.paid && ` · ${row.paid} paid`}
          </p>
          <ul>
            {row.lines.map((line) => (
              <li key={line.line}>
                <span>
                  {line.name}
                  <small>
                    {line.ordered}
                    {line.came && ` · ${line.came}`}
                  </small>
                </span>
                <span>{line.amount}</span>
              </li>
            ))}
          </ul>
          {row.happened.map((fact) => (
            <p key={fact.id} className="note">
              {fact.words}{" "}
              {fact.mayTakeBack && (
                <button
                  type="button"
                  className="link"
                  aria-label={`Take back: ${fact.words} of ${row.number}`}
                  onClick={() => void act(change.takeOrderFactBack(job.id, fact.id, newId()))}
                >
                  take back
                </button>
              )}
            </p>
          ))}
          <p className={styles.acts}>
            {!row.isClosed && (
              <button
                type="button"
                className="act"
                aria-label={`Goods came for ${row.number}`}
                onClick={() => setDoing({ what: "receive", row })}
              >
                Goods came
              </button>
            )}
            <a
              className="act"
              href={`/api/jobs/${job.id}/deliver/buying/orders/${row.id}/pdf`}
              download
              aria-label={`PDF of ${row.number}`}
            >
              PDF
            </a>
            <a
              className="act"
              href={`/api/jobs/${job.id}/deliver/buying/orders/${row.id}/csv`}
              download
              aria-label={`CSV of ${row.number}`}
            >
              CSV
            </a>
            <button
              type="button"
              className="act"
              aria-label={`Mail ${row.number}`}
              onClick={() => setDoing({ what: "mail", row })}
            >
              Mail
            </button>
            {row.isOpen && (
              <button
                type="button"
                className="act"
                aria-label={`Close short: ${row.number}`}
                onClick={() => setDoing({ what: "close", row })}
              >
                Close short
              </button>
            )}
          </p>
        </article>
      ))}
      {doing?.what === "receive" && <ReceiveGoods row={doing.row} today={data.today} did={did} onClose={close} />}
      {doing?.what === "mail" && <MailOrder row={doing.row} did={did} onClose={close} />}
      {doing?.what === "close" && <CloseOrder row={doing.row} did={did} onClose={close} />}
    </section>
  );
}
