import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button } from "@mui/material";
import { useState } from "react";
import { Link } from "react-router";
import { Refused, type Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Check } from "../controls/Check";
import { useJob } from "../job/JobContext";
import { Facts } from "../proposal/Facts";
import { Links } from "../proposal/Links";
import revisions from "../proposal/revisions.module.css";
import styles from "./changes.module.css";
import { ChangeDialog } from "./ChangeDialog";
import deliver from "./deliver.module.css";
import { MoneyRow, MoneyRows } from "./MoneyRows";

type Piece = Schemas["ChangePieceView"];

/** What a change order does to a line, in a word; the mark tells it apart without its colour. */
const kinds: Record<Schemas["ChangeKind"], { mark: string; words: string }> = {
  added: { mark: "+", words: "added" },
  dropped: { mark: "−", words: "not done any more" },
  remeasured: { mark: "±", words: "more or less" },
  repriced: { mark: "≠", words: "done otherwise" },
};

/** What of the job differs from what was agreed, the change order that is made of it, and those that were sent. */
export function Changes() {
  const [, { job }] = useJob();
  const { data } = useQuery({ ...askJob.changes(job), placeholderData: keepPreviousData });
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [wants, setWants] = useState({ goods: [] as string[], belowLeast: false, todaysBook: false });
  const [making, setMaking] = useState(false);
  const free = (data?.differs ?? []).filter((p) => p.sent === "");
  const chosen = free.filter((p) => !left.has(p.id)).map((p) => p.id);
  const wanted = { title: "", pieces: chosen, withStep: null, ...wants };
  const {
    data: draft,
    error,
    isPlaceholderData,
  } = useQuery({
    ...askJob.changeDraft(job, wanted),
    enabled: chosen.length > 0,
    placeholderData: keepPreviousData,
  });
  if (!data) return null;
  const shown = chosen.length > 0 && !error ? draft : undefined;
  const waits = data.differs.filter((p) => p.sent !== "");
  return (
    <div className={deliver.columns}>
      <section className={`panel ${deliver.order}`} aria-label="What differs from what was agreed">
        <header>
          <h2>What differs from what was agreed</h2>
          {free.length > 0 && (
            <span className="note">
              {chosen.length} of {free.length} in change order {data.next}
            </span>
          )}
        </header>
        {data.stops && (
          <p className="pad error" role="alert">
            {data.stops}
          </p>
        )}
        {data.differs.length === 0 && !data.stops && (
          <div className="pad">
            <p>The job is as it was agreed.</p>
            <p className="note">
              What is wanted besides is measured and put in as ever: add a place under{" "}
              <Link to={`/jobs/${job.id}/measure`}>Measure</Link>, include or exclude work under{" "}
              <Link to={`/jobs/${job.id}/work`}>Work</Link>. It then stands here, and becomes a change order that the
              customer signs. Until then it reaches neither contract sum nor work order.
            </p>
          </div>
        )}
        <ul className={styles.pieces} aria-label="Differences">
          {free.map((piece) => (
            <PieceRow
              key={piece.id}
              piece={piece}
              on={!left.has(piece.id)}
              onTick={(on) =>
                setLeft((all) => {
                  const now = new Set(all);
                  if (on) now.delete(piece.id);
                  else now.add(piece.id);
                  return now;
                })
              }
            />
          ))}
        </ul>
        {waits.length > 0 && (
          <>
            <h3 className={deliver.heading}>In a change order that waits for its answer</h3>
            <ul className={styles.pieces} aria-label="Waiting">
              {waits.map((piece) => (
                <PieceRow key={piece.id} piece={piece} on />
              ))}
            </ul>
          </>
        )}
        {chosen.length > 0 && error && (
          <p className="pad error" role="alert">
            {error instanceof Refused ? error.message : "It cannot be priced just now."}
          </p>
        )}
        {shown && (
          <div className={isPlaceholderData ? `${styles.draft} ${styles.old}` : styles.draft}>
            <h3 className={deliver.heading}>What change order {data.next} comes to</h3>
            <table className={styles.money}>
              <thead>
                <tr>
                  <th scope="col">Line</th>
                  <th scope="col">Taken off</th>
                  <th scope="col">Added</th>
                  <th scope="col">Together</th>
                </tr>
              </thead>
              <tbody>
                {shown.lines.map((line, at) => (
                  <tr key={at}>
                    <th scope="row">
                      {line.name}
                      <small>
                        {line.at}: {line.says}
                      </small>
                    </th>
                    <td>{line.credit}</td>
                    <td>{line.charge}</td>
                    <td>
                      <b>{line.amount}</b>
                    </td>
                  </tr>
                ))}
                {shown.steps.map((step) => (
                  <tr key={step.label}>
                    <th scope="row">{step.label}</th>
                    <td />
                    <td />
                    <td>
                      <b>{step.amount}</b>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <div className={styles.choices}>
              <Check
                on={wants.todaysBook}
                name="Priced at the Book as the job has it now"
                onTick={(todaysBook) => setWants({ ...wants, todaysBook })}
              >
                Priced at the Book as the job has it now
                <small>otherwise at that of the accepted revision</small>
              </Check>
              {(shown.least || wants.belowLeast) && (
                <Check
                  on={wants.belowLeast}
                  name="May go below the job's least charge"
                  onTick={(belowLeast) => setWants({ ...wants, belowLeast })}
                >
                  May go below the job’s least charge
                </Check>
              )}
              {shown.goods.length > 0 && (
                <fieldset>
                  <legend>Bought or on order for it, and not needed then: what cannot go back?</legend>
                  {shown.goods.map((goods) => (
                    <Check
                      key={goods.key}
                      on={goods.keeps}
                      name={`${goods.name} cannot go back`}
                      onTick={(keeps) =>
                        setWants({
                          ...wants,
                          goods: keeps ? [...wants.goods, goods.key] : wants.goods.filter((key) => key !== goods.key),
                        })
                      }
                    >
                      {goods.name}, {goods.amount}
                      <small>at what it cost us, {goods.cost}; it is the customer’s then</small>
                    </Check>
                  ))}
                </fieldset>
              )}
            </div>
          </div>
        )}
      </section>
      <div className={deliver.right}>
        {shown && (
          <section className={isPlaceholderData ? `panel ${styles.old}` : "panel"} aria-label="The next change order">
            <header>
              <h2>Change order {data.next}</h2>
              <span className="note">not sent yet</span>
            </header>
            <MoneyRows label="The change" rows={[]}>
              <MoneyRow label="This change" detail="before tax">
                <b>{shown.net}</b>
              </MoneyRow>
              <MoneyRow label="Tax">
                <b>{shown.tax}</b>
              </MoneyRow>
              <MoneyRow label={<b>This change, with tax</b>} detail={`${shown.hours} h`}>
                <b>{shown.total}</b>
              </MoneyRow>
              <MoneyRow label="Contract sum" detail={`${shown.before} before it`}>
                <b>{shown.after}</b>
              </MoneyRow>
            </MoneyRows>
            {shown.overBilled && (
              <p className="pad error" role="alert">
                {shown.overBilled}
              </p>
            )}
            <p className="pad">
              <Button variant="contained" disabled={isPlaceholderData} onClick={() => setMaking(true)}>
                Send change order {data.next}
              </Button>
            </p>
          </section>
        )}
        <section className="panel" aria-label="The contract sum">
          <header>
            <h2>The contract sum</h2>
            <span className="note">{data.currency}</span>
          </header>
          <MoneyRows rows={data.sums} />
        </section>
        {data.changes.length > 0 && (
          <section className={`panel ${revisions.list} ${styles.sent}`} aria-label="Change orders">
            <header>
              <h2>Change orders</h2>
            </header>
            {data.changes.map((change) => (
              <Facts key={change.id} revision={change} chosen={false} reading={false} />
            ))}
          </section>
        )}
        {data.changes[0] && <Links key={data.changes[0].id} revision={data.changes[0]} outside={data.outside} />}
      </div>
      {making && shown && <ChangeDialog data={data} draft={shown} wanted={wanted} onClose={() => setMaking(false)} />}
    </div>
  );
}

/** One thing that differs, and whether it goes into the change order. */
function PieceRow(props: { piece: Piece; on: boolean; onTick?: (on: boolean) => void }) {
  const { piece } = props;
  const kind = kinds[piece.kind];
  return (
    <li>
      {props.onTick ? (
        <Check on={props.on} name={`${piece.name}, ${piece.at}`} onTick={props.onTick} />
      ) : (
        <i className="note">no. {piece.sent}</i>
      )}
      <b className={styles.mark} aria-hidden>
        {kind.mark}
      </b>
      <span>
        {piece.name}
        <small>{piece.at}</small>
      </span>
      <span className="note">
        {kind.words}: {piece.says}
      </span>
    </li>
  );
}
