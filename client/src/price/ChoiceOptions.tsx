import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./options.module.css";

type One = Schemas["ChoiceView"];
type Option = Schemas["OptionView"];

/** How many are shown at a time. */
const page = 20;

/** The options of a choice, found as one types; each with its difference, and why it cannot be taken. */
export function ChoiceOptions({ choice, all }: { choice: One; all: readonly One[] }) {
  const [, { job }] = useJob();
  const [find, setFind] = useState("");
  const [from, setFrom] = useState(0);
  const { data, error } = useQuery(askJob.choiceOptions(job, choice.id, find, from, page));
  if (error) return <p className="error pad">{error.message}</p>;
  if (!data) return null;
  const upTo = from + data.options.length;
  return (
    <div className={styles.options} role="group" aria-label={`Options of ${choice.name}`}>
      <div className={styles.find}>
        <Input
          label={`Find an option of ${choice.name}`}
          bare
          find
          type="search"
          value={find}
          placeholder="name, code, supplier"
          onType={(text) => {
            setFind(text);
            setFrom(0);
          }}
        />
        <span className="note" role="status">
          {data.all === 0 ? "none" : `${from + 1} to ${upTo} of ${data.all}`}
        </span>
        <button className="act" disabled={from === 0} onClick={() => setFrom(from - page)}>
          Earlier
        </button>
        <button className="act" disabled={upTo >= data.all} onClick={() => setFrom(from + page)}>
          More
        </button>
      </div>
      <table className={`list ${styles.alternates}`} aria-label={`Options of ${choice.name}`}>
        <thead>
          <tr>
            <th>Option</th>
            <th className="n">Against what is included</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {data.options.map((option) => (
            <Row key={option.id} option={option} choice={choice} all={all} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row({ option, choice, all }: { option: Option; choice: One; all: readonly One[] }) {
  const [open] = useJob();
  const [linking, setLinking] = useState(false);
  const { name, keeps } = option;
  const together = option.with;
  return (
    <tr className={option.taken ? styles.taken : undefined} aria-current={option.taken || undefined}>
      <th scope="row">
        {name}
        <small>{option.says}</small>
        {option.needs.length > 0 && <small>only with {option.needs.map((n) => n.name).join(", ")}</small>}
        {option.rulesOut.length > 0 && <small>not with {option.rulesOut.map((n) => n.name).join(", ")}</small>}
        {option.conflict && <small className="error">{option.conflict}</small>}
        {option.refused && <small className="error">{option.refused}</small>}
        {linking && <Links option={option} choice={choice} all={all} />}
      </th>
      <td className="n">
        {option.included ? "included" : option.price && <Figure figure={option.price} label={`${name}, difference`} />}
      </td>
      <td>
        <span className={styles.acts}>
          {option.taken && <b>taken</b>}
          {keeps && (
            <button className="act" aria-label={`Take ${name}`} onClick={() => void open.tell(command(keeps))}>
              Take
            </button>
          )}
          {together && (
            <button
              className="act"
              aria-label={`Take ${name} with what it needs`}
              onClick={() => void open.tell(command(together))}
            >
              Take with what it needs
            </button>
          )}
          {all.length > 1 && (
            <button
              className="act"
              aria-expanded={linking}
              aria-label={`What ${name} needs and rules out`}
              onClick={() => setLinking(!linking)}
            >
              Needs…
            </button>
          )}
        </span>
      </td>
    </tr>
  );
}

const command = (take: Schemas["TakeChoice"]) => ({ ...take, type: "takeChoice" }) as never;

/** What an option needs and rules out among the options of other choices. */
function Links({ option, choice, all }: { option: Option; choice: One; all: readonly One[] }) {
  const [open, { job }] = useJob();
  const others = all.filter((c) => c.id !== choice.id);
  const [other, setOther] = useState(others[0]!.id);
  const [find, setFind] = useState("");
  const [wrong, setWrong] = useState("");
  const { data } = useQuery({ ...askJob.choiceOptions(job, other, find, 0, 6), enabled: find.trim() !== "" });
  function set(field: "needs" | "rulesOut", id: string) {
    const was = option[field].map((n) => n.id);
    const now = was.includes(id) ? was.filter((n) => n !== id) : [...was, id];
    void open.send({ type: "setOption", choice: choice.id, option: option.id, field, was, now } as never).then(
      () => setWrong(""),
      (error: Error) => setWrong(error.message),
    );
  }
  return (
    <div className={styles.links}>
      {(["needs", "rulesOut"] as const).map((field) =>
        option[field].map((n) => (
          <button key={n.id} className="act" onClick={() => set(field, n.id)}>
            {field === "needs" ? "Not only with" : "May go with"} {n.name}
          </button>
        )),
      )}
      <Choice
        label="Among"
        row
        value={other}
        options={others.map((c) => [c.id, c.name] as const)}
        onChoose={setOther}
      />
      <Input label="Find what it needs or rules out" value={find} onType={setFind} />
      {find.trim() !== "" &&
        data?.options.map((o) => (
          <span key={o.id}>
            {o.name}{" "}
            <button className="act" onClick={() => set("needs", o.id)}>
              Only with {o.name}
            </button>{" "}
            <button className="act" onClick={() => set("rulesOut", o.id)}>
              Not with {o.name}
            </button>
          </span>
        ))}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
