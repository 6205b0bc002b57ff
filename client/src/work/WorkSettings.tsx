import { useQuery } from "@tanstack/react-query";
import { type Schemas, type Work, api } from "../api/client";
import { Field } from "../figure/Field";
import { useJob } from "../job/JobContext";

/** How a work item is done in this job: what its assembly asks, which parts are taken, difficulty, conditions, who supplies. */
export function WorkSettings({ item }: { item: Work }) {
  const [open] = useJob();
  const { data: choices } = useQuery({
    queryKey: ["book-choices"],
    queryFn: async () => (await api.GET("/api/book/choices")).data!,
  });
  const send = (field: string, was: unknown, now: unknown) =>
    open.send({ type: "setWork", work: item.id, field, was, now } as never);
  const tell = (field: string, was: unknown, now: unknown) =>
    void open.tell({ type: "setWork", work: item.id, field, was, now } as never);
  const groups = [...new Set(item.choices.map((c) => c.group).filter(Boolean))];
  const conditions = choices?.filter((c) => c.kind === "condition") ?? [];
  const pick = (add: string | null, drop: string[]) =>
    tell("picks", item.picks, [...item.picks.filter((p) => !drop.includes(p)), ...(add ? [add] : [])]);
  return (
    <>
      {item.questions.map((q) => (
        <li className="stack" key={q.id}>
          <Field
            key={q.answer}
            label={`${q.text}, ${q.unit}`}
            value={q.answer}
            hint={q.answer === "" ? `unless you say: ${q.otherwise}` : undefined}
            onKeep={(text) => {
              const others = item.answers.filter((a) => a.question !== q.id);
              const typed = text.trim();
              return send(
                "answers",
                item.answers,
                typed === "" ? others : [...others, { question: q.id, value: typed }],
              );
            }}
          />
        </li>
      ))}
      {groups.map((group) => {
        const members = item.choices.filter((c) => c.group === group);
        return (
          <li className="stack" key={group}>
            <label>
              <span className="note">{group}</span>
              <select
                value={members.find((m) => m.taken)?.id ?? ""}
                onChange={(e) =>
                  pick(
                    e.target.value,
                    members.map((m) => m.id),
                  )
                }
              >
                {members.map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.name}
                  </option>
                ))}
              </select>
            </label>
          </li>
        );
      })}
      {item.choices
        .filter((c) => c.group === "")
        .map((c) => (
          <li key={c.id}>
            <label className="check">
              <input type="checkbox" checked={c.taken} onChange={(e) => pick(e.target.checked ? c.id : null, [c.id])} />{" "}
              with {c.name}
            </label>
          </li>
        ))}
      {item.levels.length > 0 && (
        <li className="stack">
          <label>
            <span className="note">Difficulty</span>
            <select value={item.difficulty} onChange={(e) => tell("difficulty", item.difficulty, e.target.value)}>
              <option value="">as the rate stands</option>
              {item.levels.map((l) => (
                <option key={l.name} value={l.name}>
                  {l.name} × {l.factor}
                </option>
              ))}
            </select>
          </label>
        </li>
      )}
      <li className="stack">
        <label>
          <span className="note">Who supplies</span>
          <select value={item.supply} onChange={(e) => tell("supply", item.supply, e.target.value)}>
            {supplies.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </li>
      {conditions.length > 0 && (
        <li className="stack">
          <details>
            <summary>
              Conditions
              {item.conditions.length > 0 &&
                `: ${conditions
                  .filter((c) => item.conditions.includes(c.id))
                  .map((c) => c.name)
                  .join(", ")}`}
            </summary>
            {conditions.map((c) => (
              <label className="check" key={c.id}>
                <input
                  type="checkbox"
                  checked={item.conditions.includes(c.id)}
                  onChange={(e) =>
                    tell(
                      "conditions",
                      item.conditions,
                      e.target.checked ? [...item.conditions, c.id] : item.conditions.filter((x) => x !== c.id),
                    )
                  }
                />{" "}
                {c.name}
              </label>
            ))}
          </details>
        </li>
      )}
      {item.hazard && (
        <li className="stack">
          <Field
            key={item.hazardAnswer}
            label={item.hazard}
            value={item.hazardAnswer}
            hint={item.hazardAnswer === "" ? "must be answered before work starts" : undefined}
            onKeep={(text) => send("hazardAnswer", item.hazardAnswer, text.trim())}
          />
        </li>
      )}
    </>
  );
}

const supplies: readonly (readonly [Schemas["Supply"], string])[] = [
  ["we", "we do"],
  ["customerMaterial", "customer supplies the material"],
  ["customer", "customer does it"],
];
