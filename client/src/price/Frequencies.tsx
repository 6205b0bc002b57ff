import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { FigureView, Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./year.module.css";

type One = Schemas["FrequencyView"];

const rows: readonly (readonly [string, (of: One) => FigureView | null | undefined])[] = [
  ["Visits", (of) => of.times],
  ["A visit", (of) => of.price],
  ["takes", (of) => of.hours],
  ["A month", (of) => of.month],
  ["A year", (of) => of.year],
  ["Profit", (of) => of.profit],
  ["Margin", (of) => of.margin],
];

/** A rhythm with other frequencies, side by side before one is taken. */
export function Frequencies({ view }: { view: Schemas["YearView"] }) {
  const [open, { job }] = useJob();
  const those = view.rhythms.filter((r) => r.rhythm.kind !== "event" && r.times);
  const [chosen, setChosen] = useState<string | null>(null);
  const [times, setTimes] = useState("");
  const at = those.find((r) => r.rhythm.id === chosen) ?? those.find((r) => r.usual) ?? those[0];
  const { data, error } = useQuery({
    ...askJob.frequencies(job, at?.rhythm.id ?? "", times),
    enabled: !!at,
  });
  if (!at || (!data && !error)) return null;
  const { rhythm } = at;
  return (
    <section className="panel" aria-label="Another frequency">
      <header>
        <h2>Another frequency</h2>
        <span className="note">side by side</span>
      </header>
      {those.length > 1 && (
        <div className="pad">
          <Choice
            label="Of"
            row
            value={rhythm.id}
            options={those.map((r) => [r.rhythm.id, r.rhythm.name] as const)}
            onChoose={setChosen}
          />
        </div>
      )}
      {data && (
        <>
          <table className={`list ${styles.frequencies}`}>
            <thead>
              <tr>
                <th />
                {data.all.map((of) => (
                  <th key={of.frequency.name} scope="col" className={of.now ? styles.now : undefined}>
                    {of.frequency.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(([name, figure]) => (
                <tr key={name}>
                  <th scope="row">{name}</th>
                  {data.all.map((of) => (
                    <td
                      key={of.frequency.name}
                      className={[of.now && styles.now, name === "Margin" && of.underFloor && styles.loss]
                        .filter(Boolean)
                        .join(" ")}
                    >
                      {figure(of) && <Figure figure={figure(of)!} label={`${of.frequency.name}, ${name}`} />}
                    </td>
                  ))}
                </tr>
              ))}
              <tr>
                <th />
                {data.all.map((of) => (
                  <td key={of.frequency.name} className={of.now ? styles.now : undefined}>
                    {of.now ? (
                      <small>as it is</small>
                    ) : of.refused ? (
                      <small title={of.refused}>cannot be</small>
                    ) : (
                      <button
                        type="button"
                        className="act"
                        aria-label={`Take ${of.frequency.name}`}
                        onClick={() =>
                          void open.tell({
                            type: "takeFrequency",
                            rhythm: rhythm.id,
                            was: { kind: rhythm.kind, times: rhythm.times },
                            now: { kind: of.frequency.kind, times: of.frequency.times },
                          })
                        }
                      >
                        Take
                      </button>
                    )}
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
          {data.all
            .filter((of) => of.refused)
            .map((of) => (
              <p key={of.frequency.name} className={styles.words}>
                {of.frequency.name}: {of.refused}
              </p>
            ))}
          <p className={styles.words}>{data.words}</p>
        </>
      )}
      {error && (
        <p className="error pad" role="alert">
          {error.message}
        </p>
      )}
      <div className="pad">
        <Field
          label="Beside them"
          row
          unit="a year"
          value={times}
          onKeep={(text) => {
            setTimes(text.trim());
            return Promise.resolve();
          }}
        />
      </div>
    </section>
  );
}
