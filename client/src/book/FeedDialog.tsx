import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { bookChanged } from "./useEntry";
import { Check } from "../controls/Check";
import { toggled } from "../controls/toggled";
import styles from "./book.module.css";
import { change } from "../api/changes";
import { ask } from "../api/queries";

/** Prices a supplier proposes: old, new, percent, which open jobs would move; taken by choice. */
export function FeedDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const { data: feed } = useQuery(ask.feed);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [done, setDone] = useState("");
  const chosen = feed?.prices.map((p) => p.id).filter((id) => !left.has(id)) ?? [];
  const { data: jobs } = useQuery({ ...ask.feedInJobs(chosen), enabled: chosen.length > 0 });
  async function take() {
    const taken = await change.takePrices(chosen);
    await bookChanged(queries);
    setDone(`${taken.changed} prices taken. Jobs keep theirs until they are refreshed.`);
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="feed-title" fullWidth maxWidth="md">
      <DialogTitle id="feed-title">Supplier prices</DialogTitle>
      <DialogContent className="feed">
        {feed?.isStandIn && (
          <p className={styles.standin}>
            <b>Stand-in.</b> {feed.name}: this list ships with the program and stands for a supplier's own.
          </p>
        )}
        {done && <p role="status">{done}</p>}
        {feed?.prices.length === 0 && <p>Every price in the Book is as the suppliers list it.</p>}
        {feed && feed.prices.length > 0 && (
          <table className="list" aria-label="Proposed prices">
            <thead>
              <tr>
                <th>Take</th>
                <th>Goods</th>
                <th>Pack</th>
                <th className="n">Old</th>
                <th className="n">New</th>
                <th className="n">Change</th>
              </tr>
            </thead>
            <tbody>
              {feed.prices.flatMap((p) =>
                p.packs.map((pack, i) => (
                  <tr key={p.id + pack.name}>
                    <td>
                      {i === 0 && (
                        <Check
                          name={`Take ${p.name}`}
                          on={!left.has(p.id)}
                          onTick={(on) => setLeft(toggled(left, p.id, !on))}
                        />
                      )}
                    </td>
                    <td>
                      {i === 0 && p.name} {i === 0 && <small className="note">{`${p.supplier}, ${p.code}`}</small>}
                    </td>
                    <td>{pack.name}</td>
                    <td className="n">{pack.old}</td>
                    <td className="n">{pack.new}</td>
                    <td className="n">{pack.percent}</td>
                  </tr>
                )),
              )}
            </tbody>
          </table>
        )}
        {chosen.length > 0 && jobs && (
          <section aria-label="Jobs that would move">
            <h3>Jobs that would move if they took them</h3>
            {jobs.length === 0 && <p className="note">None.</p>}
            <ul>
              {jobs.map((j) => (
                <li key={j.id}>
                  {j.name}: {j.now} → {j.then} before tax ({j.moves})
                </li>
              ))}
            </ul>
          </section>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button variant="contained" disabled={chosen.length === 0} onClick={() => void take()}>
          Take {chosen.length} into the Book
        </Button>
      </DialogActions>
    </Dialog>
  );
}
