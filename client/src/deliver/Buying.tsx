import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useState } from "react";
import { Link } from "react-router";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import styles from "./buying.module.css";
import { MoneyRow, MoneyRows } from "./MoneyRows";
import { MoveGoods } from "./MoveGoods";
import { NewOrder } from "./NewOrder";
import { Orders } from "./Orders";
import { useBuying } from "./useDeliver";

/** What is used, kept, on order and to buy, as a tape that is as long as the need. */
const strips = [styles.used, styles.kept, styles.ordered, styles.missing];

/** What the job needs, against what is in stock and on order. */
export function Buying({ works }: { works: Schemas["WorkToWrite"][] }) {
  const { job, did, act, wrong } = useBuying();
  const { data } = useQuery(askJob.buying(job));
  const [ordering, setOrdering] = useState<Schemas["ToOrderFrom"] | null>(null);
  const [moving, setMoving] = useState<Schemas["GoodsRow"] | null>(null);
  if (!data) return <div aria-busy="true" aria-label="Reckoning what is to buy" />;
  return (
    <div className={styles.columns}>
      <section className={`panel ${styles.list}`} aria-label="Goods of the job">
        <header>
          <h2>Goods of the job</h2>
          <span className={styles.key}>
            <i className={styles.used} aria-hidden="true" /> used <i className={styles.kept} aria-hidden="true" /> kept
            for the job <i className={styles.ordered} aria-hidden="true" /> on order{" "}
            <i className={styles.missing} aria-hidden="true" /> to buy
          </span>
          <Link to="/office/stock" className="note">
            Stock list
          </Link>
        </header>
        {data.told.map((told) => (
          <p key={told} className="pad error">
            {told}
          </p>
        ))}
        {wrong && (
          <p className="pad error" role="alert">
            {wrong}
          </p>
        )}
        {data.goods.length === 0 ? (
          <p className="pad note">
            This job takes no goods of ours. What is bought for it all the same can be ordered.
          </p>
        ) : (
          <table>
            <thead>
              <tr>
                <th scope="col">Goods</th>
                <th scope="col">Need</th>
                <th scope="col">Used</th>
                <th scope="col">Kept for it</th>
                <th scope="col">On order</th>
                <th scope="col">To buy</th>
                <th scope="col">In stock</th>
                <th scope="col">Estimated</th>
                <th scope="col">Will cost</th>
                <th scope="col">
                  <span className={styles.unseen}>What is done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {data.goods.map((row) => (
                <tr key={row.goods.material + row.goods.colour + row.goods.unit}>
                  <th scope="row">
                    {row.name}
                    <small>{row.supplier || "no supplier in the Book"}</small>
                    <span className={styles.strip} aria-hidden="true">
                      {row.shares.map((share, at) => (
                        <i key={at} className={strips[at]} style={{ "--share": `${share}%` } as CSSProperties} />
                      ))}
                    </span>
                  </th>
                  <td>{row.need || <i>not planned</i>}</td>
                  <td>
                    {row.used}
                    <small>{row.forDone}</small>
                  </td>
                  <td>{row.reserved}</td>
                  <td>{row.onOrder}</td>
                  <td>
                    <b>{row.toBuy}</b>
                    <small>{row.packs}</small>
                  </td>
                  <td>{row.stock}</td>
                  <td>{row.estimated}</td>
                  <td>
                    {row.willCost}
                    <small>{row.differs}</small>
                  </td>
                  <td>
                    <button
                      type="button"
                      className="act"
                      aria-label={`Move ${row.name}`}
                      title="Reserve, use, put back, write what came"
                      onClick={() => setMoving(row)}
                    >
                      Move
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {data.moves.length > 0 && (
          <section aria-label="What moved">
            <h3 className={styles.heading}>What moved</h3>
            <ul className={styles.moves}>
              {data.moves.map((move) => (
                <li key={move.id}>
                  <span>{move.day}</span>
                  <span>
                    {move.what} <small>{move.detail}</small>
                  </span>
                  {move.mayTakeBack && (
                    <button
                      type="button"
                      className="link"
                      aria-label={`Take back ${move.what}`}
                      onClick={() => void act(change.takeMoveBack(job.id, move.id, newId()))}
                    >
                      take back
                    </button>
                  )}
                </li>
              ))}
            </ul>
          </section>
        )}
      </section>
      <div className={styles.right}>
        <section className="panel" aria-label="To order">
          <header>
            <h2>To order</h2>
            <span className="note">amounts in {data.currency}</span>
          </header>
          <MoneyRows rows={[]}>
            {data.toOrder.map((from) => (
              <MoneyRow key={from.name} label={from.name || "No supplier in the Book"} detail={from.total}>
                <Button
                  variant="contained"
                  size="small"
                  aria-label={`Order from ${from.name || "a supplier"}`}
                  onClick={() => setOrdering(from)}
                >
                  Order
                </Button>
              </MoneyRow>
            ))}
          </MoneyRows>
          <p className="pad note">
            {data.toOrder.length === 0 && "Everything that is needed is there or on order. "}
            <button
              type="button"
              className="link"
              onClick={() => setOrdering({ name: "", lines: [], delivery: "", total: "" })}
            >
              Order something else
            </button>
          </p>
        </section>
        <Orders data={data} />
        <section className="panel" aria-label="Against the estimate">
          <header>
            <h2>Against the estimate</h2>
            <span className="note">the contract sum does not move</span>
          </header>
          <MoneyRows rows={data.sums} />
        </section>
      </div>
      {ordering && <NewOrder data={data} from={ordering} onClose={() => setOrdering(null)} />}
      {moving && (
        <MoveGoods
          row={moving}
          works={works}
          today={data.today}
          onMove={(move) => did(change.moveGoods(job.id, move))}
          onClose={() => setMoving(null)}
        />
      )}
    </div>
  );
}
