import { memo } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { Field } from "../controls/Field";
import { useJob } from "../job/JobContext";
import { Choice } from "../controls/Choice";
import { wholeOr } from "../controls/wholeOr";

/** The crew that does the job, its day, and its way to the site. */
export const CrewTerms = memo(function CrewTerms({ setUps }: { setUps: Schemas["SetUpChoice"][] }) {
  const [open, { job }] = useJob();
  const [search] = useSearchParams();
  const { crew } = job;
  const edit = (field: string, was: unknown, now: unknown) => ({ type: "setCrew", field, was, now }) as never;
  return (
    <section className="panel" aria-label="Crew and travel">
      <header>
        <h2>Crew and travel</h2>
      </header>
      <ul className="rows">
        <li>
          <Field
            label="Crew"
            row
            unit="people"
            value={String(crew.size)}
            focus={search.get("field") === "size"}
            onKeep={(text) => open.send(edit("size", crew.size, wholeOr(text)))}
          />
        </li>
        <li>
          <Field
            label="Working day"
            row
            unit="h"
            value={crew.hoursPerDay}
            focus={search.get("field") === "hoursPerDay"}
            onKeep={(text) => open.send(edit("hoursPerDay", crew.hoursPerDay, text.trim()))}
          />
        </li>
      </ul>
      <div className="pad">
        <Choice
          label="Set-up and travel"
          value={crew.setUp ?? ""}
          none="none charged"
          options={setUps.map((s) => [s.id, s.name])}
          onChoose={(now) => void open.tell(edit("setUp", crew.setUp, now || null))}
        />
      </div>
    </section>
  );
});
