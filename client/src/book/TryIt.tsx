import { useQuery } from "@tanstack/react-query";
import { type Schemas, api } from "../api/client";
import { Figure } from "../figure/Figure";
import type { Assembly, EntryView } from "./useEntry";

export type Trial = Schemas["TryEntry"];
export type Tried = Schemas["TrialView"];

export const usualTrial: Trial = { quantities: {}, coats: null, difficulty: "", picks: [], conditions: [] };

/** What the entry comes to with those quantities. */
export function useTried(view: EntryView, trial: Trial) {
  return useQuery({
    queryKey: ["try", view.entry.id, view.entry.version, trial],
    queryFn: async () =>
      (await api.POST("/api/book/{id}/try", { params: { path: { id: view.entry.id } }, body: trial })).data!,
    enabled: view.asks.length > 0,
    placeholderData: (kept) => kept,
    retry: false,
  });
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
    <aside className="panel tryit" aria-label="Try it">
      <header>
        <h2>Try it</h2>
      </header>
      <ul className="rows">
        {view.asks.map((ask) => (
          <li key={ask.name}>
            <label htmlFor={`try${ask.name}`}>{ask.label}</label>
            <span className="asking">
              <input
                id={`try${ask.name}`}
                inputMode="decimal"
                autoComplete="off"
                value={trial.quantities[ask.name] ?? ask.sample}
                aria-invalid={refused?.field === ask.name}
                aria-describedby={refused?.field === ask.name ? "trywrong" : undefined}
                onChange={(e) => onTrial({ ...trial, quantities: { ...trial.quantities, [ask.name]: e.target.value } })}
              />
              <i>{ask.unit}</i>
            </span>
          </li>
        ))}
        {coats.length > 1 && (
          <li>
            <label htmlFor="trycoats">Coats</label>
            <select
              id="trycoats"
              value={trial.coats ?? ""}
              onChange={(e) => onTrial({ ...trial, coats: e.target.value === "" ? null : Number(e.target.value) })}
            >
              <option value="">usual</option>
              {coats.map((c) => (
                <option key={c}>{c}</option>
              ))}
            </select>
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
          <ul className="rows came" aria-label="What it comes to" aria-live="polite">
            {tried.data.lines.map((line) => (
              <li key={line.label}>
                <span>
                  {line.label}
                  {line.note && <small>{line.note}</small>}
                </span>
                <Figure figure={line.figure} label={line.label} />
              </li>
            ))}
            <li className="sum">
              {tried.data.costLabel} <Figure figure={tried.data.cost} label={tried.data.costLabel} />
            </li>
          </ul>
          <p className="words">{tried.data.sentence}</p>
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
            <label htmlFor={`try${group}`}>{group}</label>
            <select
              id={`try${group}`}
              value={members.find((m) => trial.picks.includes(m.id))?.id ?? members[0]!.id}
              onChange={(e) => onTrial({ ...trial, picks: [...without(ids), e.target.value] })}
            >
              {members.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}
                </option>
              ))}
            </select>
          </li>
        );
      })}
      {optional.map((part) => (
        <li key={part.id}>
          <label className="check">
            <input
              type="checkbox"
              checked={trial.picks.includes(part.id)}
              onChange={(e) =>
                onTrial({ ...trial, picks: e.target.checked ? [...trial.picks, part.id] : without([part.id]) })
              }
            />{" "}
            with {part.name}
          </label>
        </li>
      ))}
    </>
  );
}
