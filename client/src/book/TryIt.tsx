import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import type { Assembly, EntryView } from "./useEntry";
import { Input } from "../controls/Input";
import { Choice } from "../controls/Choice";
import { Check } from "../controls/Check";
import styles from "./book.module.css";
import { ask } from "../api/queries";

export type Trial = Schemas["TryEntry"];
export type Tried = Schemas["TrialView"];

export const usualTrial: Trial = { quantities: {}, coats: null, difficulty: "", picks: [], conditions: [] };

/** What the entry comes to with those quantities. */
export function useTried(view: EntryView, trial: Trial) {
  return useQuery({ ...ask.trial(view.entry.id, view.entry.version, trial), enabled: view.asks.length > 0 });
}

/** Type quantities, see hours, goods, equipment, what would be bought and the cost. */
export function TryIt(props: {
  view: EntryView;
  trial: Trial;
  onTrial: (trial: Trial) => void;
  tried: ReturnType<typeof useTried>;
}) {
  const { view, trial, onTrial, tried } = props;
  const refused = tried.error as (Error & { field?: string }) | null;
  const entry = view.entry;
  const coats =
    entry.kind === "rate"
      ? entry.paces.map((p) => p.coats)
      : entry.kind === "assembly" && entry.components.some((c) => c.perCoat)
        ? [1, 2, 3, 4]
        : [];
  return (
    <aside className={`panel ${styles.tryit}`} aria-label="Try it">
      <header>
        <h2>Try it</h2>
      </header>
      <ul className="rows">
        {view.asks.map((ask) => (
          <li key={ask.name}>
            <Input
              row
              label={ask.label}
              unit={ask.unit}
              inputMode="decimal"
              value={trial.quantities[ask.name] ?? ask.sample}
              wrong={refused?.field === ask.name ? refused.message : undefined}
              onType={(text) => onTrial({ ...trial, quantities: { ...trial.quantities, [ask.name]: text } })}
            />
          </li>
        ))}
        {coats.length > 1 && (
          <li>
            <Choice
              row
              label="Coats"
              value={String(trial.coats ?? "")}
              none="usual"
              options={coats.map((c) => [String(c), String(c)])}
              onChoose={(now) => onTrial({ ...trial, coats: now === "" ? null : Number(now) })}
            />
          </li>
        )}
        {entry.kind === "assembly" && <Picks assembly={entry} trial={trial} onTrial={onTrial} />}
      </ul>
      {refused && (
        <p className="error" id="trywrong" role="alert">
          {refused.message}
        </p>
      )}
      {tried.data && (
        <>
          <ul className={`rows ${styles.came}`} aria-label="What it comes to" aria-live="polite">
            {tried.data.lines.map((line) => (
              <li key={line.label}>
                <span>
                  {line.label}
                  {line.note && <small>{line.note}</small>}
                </span>
                <Figure figure={line.figure} label={line.label} />
              </li>
            ))}
            <li className={styles.sum}>
              {tried.data.costLabel} <Figure figure={tried.data.cost} label={tried.data.costLabel} />
            </li>
          </ul>
          <p className={styles.words}>{tried.data.sentence}</p>
        </>
      )}
    </aside>
  );
}

/** Which part of each either-or group is taken, and which optional ones. */
function Picks({ assembly, trial, onTrial }: { assembly: Assembly; trial: Trial; onTrial: (trial: Trial) => void }) {
  const groups = [...new Set(assembly.components.map((c) => c.group).filter(Boolean))];
  const optional = assembly.components.filter((c) => c.optional && !c.group);
  const without = (ids: string[]) => trial.picks.filter((p) => !ids.includes(p));
  return (
    <>
      {groups.map((group) => {
        const members = assembly.components.filter((c) => c.group === group);
        const ids = members.map((m) => m.id);
        return (
          <li key={group}>
            <Choice
              label={group}
              value={members.find((m) => trial.picks.includes(m.id))?.id ?? members[0]!.id}
              options={members.map((m) => [m.id, m.name])}
              onChoose={(now) => onTrial({ ...trial, picks: [...without(ids), now] })}
            />
          </li>
        );
      })}
      {optional.map((part) => (
        <li key={part.id}>
          <Check
            on={trial.picks.includes(part.id)}
            onTick={(on) => onTrial({ ...trial, picks: on ? [...trial.picks, part.id] : without([part.id]) })}
          >
            with {part.name}
          </Check>
        </li>
      ))}
    </>
  );
}
