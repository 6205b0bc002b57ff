import { useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { Field } from "../figure/Field";
import { useJob } from "../job/JobContext";

/** The crew that does the job, its day, and its way to the site. */
export function CrewTerms({ setUps }: { setUps: Schemas["SetUpChoice"][] }) {
  const [open, { job }] = useJob();
  const [search] = useSearchParams();
  const { crew } = job;
  const edit = (field: string, was: unknown, now: unknown) => ({ type: "setCrew", field, was, now }) as never;
  const whole = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : text);
  return (
    <section className="panel" aria-label="Crew and travel">
      <header>
        <h2>Crew and travel</h2>
      </header>
      <ul className="rows">
        <li>
          <Field
            label="Crew"
            unit="people"
            value={String(crew.size)}
            focus={search.get("field") === "size"}
            onKeep={(text) => open.send(edit("size", crew.size, whole(text)))}
          />
        </li>
        <li>
          <Field
            label="Working day"
            unit="h"
            value={crew.hoursPerDay}
            focus={search.get("field") === "hoursPerDay"}
            onKeep={(text) => open.send(edit("hoursPerDay", crew.hoursPerDay, text.trim()))}
          />
        </li>
      </ul>
      <label className="choice">
        <span className="note">Set-up and travel</span>
        <select
          value={crew.setUp ?? ""}
          onChange={(e) => void open.tell(edit("setUp", crew.setUp, e.target.value || null))}
        >
          <option value="">none charged</option>
          {setUps.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </select>
      </label>
    </section>
  );
}
