import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Figure } from "../figure/Figure";
import { FigureText } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import { Assumed, Doubts } from "./Doubts";
import { SecondEstimate } from "./SecondEstimate";
import price from "./price.module.css";
import styles from "./sure.module.css";

type Sure = Schemas["SureView"];

/** Outcomes that are drawn at once, so that something stands; then all. */
const atFirst = 1000;

/** How sure the estimate is: where hours, cost and profit may come out, what carries the risk, and whether two estimators would agree. */
export function HowSure() {
  const [, { job }] = useJob();
  const client = useQueryClient();
  const [stopped, setStopped] = useState(false);
  const first = useQuery(askJob.sure(job, atFirst));
  const whole = askJob.sure(job, first.data?.all ?? atFirst);
  const all = useQuery({ ...whole, enabled: !!first.data && !first.isPlaceholderData && !stopped });
  const sure = all.data && !all.isPlaceholderData ? all.data : first.isPlaceholderData ? all.data : first.data;
  const busy = first.isPlaceholderData || all.isPlaceholderData || all.isFetching;
  if (!sure) return <p className="note">{first.error?.message ?? "Drawing outcomes…"}</p>;
  return (
    <div className={price.page}>
      <div className={price.price}>
        <div className={price.stack}>
          <section className="panel" aria-label="Where the profit may come out">
            <header>
              <h2>Where the profit may come out</h2>
              <span className="note" role="status">
                {`${sure.draws.toLocaleString("en")} outcomes${all.isFetching ? `, of ${sure.all.toLocaleString("en")}` : ""}`}
              </span>
              {all.isFetching && (
                <button
                  className="act"
                  onClick={() => {
                    setStopped(true);
                    void client.cancelQueries({ queryKey: whole.queryKey });
                  }}
                >
                  Stop
                </button>
              )}
              {stopped && (
                <button className="act" onClick={() => setStopped(false)}>
                  Draw all {sure.all.toLocaleString("en")}
                </button>
              )}
            </header>
            <Picture sure={sure} />
            <Sentence sure={sure} />
          </section>
          <Assumed sure={sure} />
        </div>
        <Outcomes sure={sure} busy={busy} />
      </div>
      <Doubts sure={sure} />
      <SecondEstimate />
    </div>
  );
}

function Picture({ sure }: { sure: Sure }) {
  return (
    <div className={styles.picture} aria-hidden="true">
      <div className={styles.bars}>
        {sure.bars.map((bar, i) => (
          <i
            key={i}
            className={bar.underFloor ? styles.under : undefined}
            style={{ left: `${bar.from}%`, width: `${bar.width}%`, height: `calc(${bar.height}% * 0.88)` }}
          />
        ))}
        {sure.floor != null && (
          <span className={styles.floor} style={{ left: `${sure.floor}%` }}>
            floor
          </span>
        )}
        <span className={styles.middle} style={{ left: `${sure.middle}%` }}>
          half
        </span>
      </div>
      <div className={styles.tape}>
        {sure.ticks.map((tick) => (
          <span key={tick.at} style={{ left: `${tick.at}%` }}>
            {tick.label}
          </span>
        ))}
      </div>
    </div>
  );
}

function Sentence({ sure }: { sure: Sure }) {
  const profit = sure.tenths[2]!;
  return (
    <p className={price.words}>
      Half of all outcomes leave more than{" "}
      <b>
        <FigureText figure={profit.at50} />
      </b>{" "}
      of gross profit, one in ten less than{" "}
      <b>
        <FigureText figure={profit.at10} />
      </b>
      , one in ten more than{" "}
      <b>
        <FigureText figure={profit.at90} />
      </b>
      .
      {sure.belowFloor && (
        <>
          {" "}
          In{" "}
          <b className={Number(sure.belowFloor.value) > 0 ? price.warn : undefined}>
            <FigureText figure={sure.belowFloor} />
          </b>{" "}
          of them the margin ends under the floor.
        </>
      )}
    </p>
  );
}

function Outcomes({ sure, busy }: { sure: Sure; busy: boolean }) {
  return (
    <section className="panel" aria-label="Outcomes" aria-busy={busy}>
      <header>
        <h2>Outcomes</h2>
        <span className="note">so many of ten come out below</span>
      </header>
      <table className={`list ${styles.tenths}`}>
        <thead>
          <tr>
            <th />
            <th className="n">1 of 10</th>
            <th className="n">5 of 10</th>
            <th className="n">9 of 10</th>
          </tr>
        </thead>
        <tbody>
          {sure.tenths.map((row) => (
            <tr key={row.label}>
              <th scope="row">{row.label}</th>
              <td className="n">
                <Figure figure={row.at10} label={`${row.label}, 1 of 10 below`} />
              </td>
              <td className="n">
                <Figure figure={row.at50} label={`${row.label}, 5 of 10 below`} />
              </td>
              <td className="n">
                <Figure figure={row.at90} label={`${row.label}, 9 of 10 below`} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="rows">
        <li>
          <span>Price before tax, as it stands</span>
          <Figure figure={sure.price} label="Price before tax, as it stands" />
        </li>
        <li>
          <span>Chance of a margin under the floor</span>
          {sure.belowFloor ? <Figure figure={sure.belowFloor} label="Chance of a margin under the floor" /> : "none"}
        </li>
      </ul>
      <h3 className={styles.heading}>What carries most of the risk</h3>
      {sure.risks.length === 0 ? (
        <p className="pad note">Nothing may come out otherwise than it is reckoned.</p>
      ) : (
        <ul className={`rows ${styles.risks}`}>
          {sure.risks.map((risk) => (
            <li key={risk.id}>
              <span>{risk.name}</span>
              <span className={styles.risk} aria-hidden="true">
                <i style={{ width: `${risk.percent.value}%` }} />
              </span>
              <Figure figure={risk.percent} label={`${risk.name}, of the risk`} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
