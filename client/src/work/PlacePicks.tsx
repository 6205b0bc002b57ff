import { useState } from "react";
import { useJob } from "../job/JobContext";
import { Check } from "../controls/Check";
import { Input } from "../controls/Input";
import { toggled } from "../controls/toggled";
import styles from "./work.module.css";

interface Props {
  chosen: ReadonlySet<string>;
  onChoose: (places: ReadonlySet<string>) => void;
}

/** Places of the job picked by name, or all under a heading at once; what is typed finds either. */
export function PlacePicks({ chosen, onChoose }: Props) {
  const [, { job }] = useJob();
  const [find, setFind] = useState("");
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const found = job.places.filter((p) => words.every((w) => `${p.group} ${p.name}`.toLowerCase().includes(w)));
  const headings = [...new Set(found.map((p) => p.group))];
  const put = (places: readonly string[], present: boolean) =>
    onChoose(places.reduce((now, place) => toggled(now, place, present), chosen));
  return (
    <div className={styles.picks}>
      <Input
        bare
        find
        label="Find places and headings"
        placeholder="Type a name or heading"
        value={find}
        onType={setFind}
      />
      {chosen.size > 0 && (
        <button className="link" onClick={() => onChoose(new Set())}>
          Pick none
        </button>
      )}
      <ul aria-label="Places">
        {headings.map((heading) => {
          const under = found.filter((p) => p.group === heading);
          const ids = under.map((p) => p.id);
          return (
            <li key={heading}>
              {(heading || headings.length > 1) && (
                <Check
                  on={ids.every((id) => chosen.has(id))}
                  half={ids.some((id) => chosen.has(id)) && !ids.every((id) => chosen.has(id))}
                  onTick={(on) => put(ids, on)}
                >
                  <b>{heading || "Under no heading"}</b>
                </Check>
              )}
              <ul>
                {under.map((p) => (
                  <li key={p.id}>
                    <Check on={chosen.has(p.id)} onTick={(on) => put([p.id], on)}>
                      {p.name}
                    </Check>
                  </li>
                ))}
              </ul>
            </li>
          );
        })}
        {found.length === 0 && <li className="note">No place has that.</li>}
      </ul>
    </div>
  );
}
