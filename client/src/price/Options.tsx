import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Check } from "../controls/Check";
import { Field } from "../controls/Field";
import { toggled } from "../controls/toggled";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { NewAlternate } from "./NewAlternate";
import { Choices } from "./Choices";
import { Quotes } from "./Quotes";
import { Variants } from "./Variants";
import styles from "./options.module.css";
import price from "./price.module.css";

type Offered = Schemas["OfferedView"];

/** What is offered beside the price: alternates that add and that deduct, and what some of them come to together. */
export function Options() {
  const [, { job }] = useJob();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [making, setMaking] = useState<Offered | "new" | null>(null);
  const { data } = useQuery(askJob.options(job, [...chosen]));
  if (!data) return null;
  return (
    <div className={price.page}>
      <div className={price.price}>
        <section className="panel" aria-label="Alternates">
          <header>
            <h2>Alternates</h2>
            <span className="note">
              {data.offered.length === 0 ? "nothing is offered beside the price yet" : "each before tax, by itself"}
            </span>
            <button className="act" onClick={() => setMaking("new")}>
              New alternate
            </button>
          </header>
          {data.offered.length === 0 ? (
            <p className="pad note">
              Mark work as an alternate on Work, or under Worth, and it stands here with its price. Several pieces of
              work and places go under one name as a <b>new alternate</b>; one that takes off leaves out what is in the
              price.
            </p>
          ) : (
            <table className={`list ${styles.alternates}`}>
              <thead>
                <tr>
                  <th>Together</th>
                  <th>Alternate</th>
                  <th className="n">Price</th>
                  <th className="n">Hours</th>
                  <th className="n">Gross profit</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {data.offered.map((offered) => (
                  <Row
                    key={offered.id}
                    offered={offered}
                    chosen={chosen.has(offered.id)}
                    onChoose={() => setChosen(toggled(chosen, offered.id))}
                    onMore={() => setMaking(offered)}
                  />
                ))}
              </tbody>
            </table>
          )}
        </section>
        <section className="panel" aria-label="Taken together">
          <header>
            <h2>Taken together</h2>
            <span className="note">tick what the customer might take</span>
          </header>
          {data.wrong && <p className="error pad">{data.wrong}</p>}
          {data.together.length === 0 ? (
            <p className="pad note">
              What is ticked is bought and raised to least charges together, with tax once on the whole. It need not be
              the sum of its prices: the rest is said.
            </p>
          ) : (
            <ul className="rows">
              {/* By what they are: a figure that has the focus keeps it while rows come before it. */}
              {data.together.map((row) => (
                <li key={`${row.sum} ${row.label}`} className={row.sum ? styles.sum : undefined}>
                  <span>{row.label}</span>
                  <Figure figure={row.figure} label={`${row.label}, taken together`} />
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
      <Choices />
      <Quotes />
      <Variants />
      {making && <NewAlternate options={data} to={making === "new" ? null : making} onClose={() => setMaking(null)} />}
    </div>
  );
}

interface RowProps {
  offered: Offered;
  chosen: boolean;
  onChoose: () => void;
  onMore: () => void;
}

function Row({ offered, chosen, onChoose, onMore }: RowProps) {
  const [open] = useJob();
  const { name, keeps } = offered;
  const tell = (command: object) => void open.tell(command as never);
  return (
    <tr className={offered.taken ? styles.taken : undefined}>
      <td>{!offered.taken && keeps && <Check name={`${name}, taken together`} on={chosen} onTick={onChoose} />}</td>
      <th scope="row">
        {offered.named ? (
          <Field
            label={`Name of ${name}`}
            bare
            value={name}
            onKeep={(text) => open.send({ type: "renameAlternate", alternate: offered.id, was: name, name: text })}
          />
        ) : (
          <b>{name}</b>
        )}
        <small>
          {offered.kind === "add" ? "adds" : "takes off"}
          {offered.named && offered.work && ` · ${offered.work}`}
          {offered.places && ` · ${offered.places}`}
        </small>
        {offered.contrary && (
          <small className="error">Leaving it out would raise the price: something else falls away with it.</small>
        )}
        {offered.refused && <small className="error">{offered.refused}</small>}
      </th>
      <td className="n">{offered.price && <Figure figure={offered.price} label={`${name}, price`} />}</td>
      <td className="n">{offered.hours && <Figure figure={offered.hours} label={`${name}, hours`} />}</td>
      <td className="n">
        {offered.grossProfit && <Figure figure={offered.grossProfit} label={`${name}, gross profit`} />}
      </td>
      <td>
        <span className={styles.acts}>
          {keeps && (
            <button
              className="act"
              aria-label={`${offered.taken ? "Give back" : "Take"} ${name}`}
              onClick={() => tell({ ...keeps, type: "takeAlternate" })}
            >
              {offered.taken ? "Give back" : "Take"}
            </button>
          )}
          {offered.named && !offered.taken && (
            <button className="act" aria-label={`Add to ${name}`} onClick={onMore}>
              Add to it
            </button>
          )}
          {offered.named && (
            <button
              className="act"
              aria-label={`Take the name ${name} away`}
              title="Its work stands as it stands, each piece by itself"
              onClick={() => tell({ type: "ungroupAlternate", alternate: offered.id })}
            >
              Part
            </button>
          )}
        </span>
      </td>
    </tr>
  );
}
