import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import { wholeOr } from "../controls/wholeOr";
import styles from "./office.module.css";
import { change } from "../api/changes";

/** The backups that are made by themselves: which there are, how many are kept, and one at once. */
export function Backups() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.backups);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState("");
  if (!data) return null;
  const { plan, backups } = data;
  async function set(part: Partial<typeof plan>) {
    try {
      const now = await change.backupPlan({ was: plan, now: { ...plan, ...part } });
      queries.setQueryData(ask.backups.queryKey, now);
    } catch (error) {
      await queries.invalidateQueries(ask.backups);
      throw error;
    }
  }
  async function make() {
    setBusy(true);
    setWrong("");
    try {
      const now = await change.makeBackup();
      queries.setQueryData(ask.backups.queryKey, now);
    } catch (error) {
      setWrong((error as Error).message);
    }
    setBusy(false);
  }
  return (
    <section className={`panel ${styles.wide}`} aria-label="Backups">
      <header>
        <h2>Backups</h2>
        <button className={`act ${styles.end}`} disabled={busy} onClick={() => void make()}>
          {busy ? "Making one…" : "Make one now"}
        </button>
      </header>
      <div className="pad">
        <p className="note">
          One is made each day while Emendum runs, and read again to prove it. They stand in {data.folder}; copy them to
          another machine now and then. <code>emendum restore FILE</code> puts one back.
        </p>
        <div className={styles.pair}>
          <Field
            label="Daily backups kept"
            value={String(plan.daily)}
            onKeep={(text) => set({ daily: wholeOr(text) as number })}
          />
          <Field
            label="Weekly backups kept before those"
            value={String(plan.weekly)}
            onKeep={(text) => set({ weekly: wholeOr(text) as number })}
          />
        </div>
        {(wrong || data.wrong) && (
          <p className="error" role="alert">
            {wrong || data.wrong}
          </p>
        )}
        <ul className="rows" aria-label="Backups there are">
          {backups.map((b) => (
            <li key={b.name}>
              {b.name} <span className="note">made at {b.at.slice(11, 16)} UTC</span>
            </li>
          ))}
        </ul>
        {backups.length === 0 && <p className="note">None yet.</p>}
      </div>
    </section>
  );
}
