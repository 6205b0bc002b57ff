import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { useJob } from "../job/JobContext";
import styles from "./schedule.module.css";
import { Troubles } from "./TaskSheet";

/** Lays the work order out: from which day, and who does what. */
export function LayOut({
  data,
  strip,
  keep,
  onClose,
}: {
  data: Schemas["TasksView"];
  strip: Schemas["StripAsked"];
  keep: (preview: Schemas["TaskPreview"], told: boolean) => Promise<void>;
  onClose: () => void;
}) {
  const [, { job }] = useJob();
  const [from, setFrom] = useState(data.today);
  const [crews, setCrews] = useState(data.sections.map((s) => s.crew ?? ""));
  const said = crews.every((crew) => crew !== "");
  const {
    data: preview,
    error,
    isPlaceholderData,
  } = useQuery({
    ...askJob.layOut(job, {
      strip,
      from,
      crews: data.sections.map((s, at) => ({ section: s.name, crew: crews[at]! })),
    }),
    enabled: said,
  });
  const anew = data.tasks.length > 0;
  return (
    <Ask
      title={anew ? "Lay it out anew" : "Lay it out"}
      apply="Lay it out"
      ready={said && !error && preview !== undefined && !isPlaceholderData}
      onApply={() => keep(preview!, false)}
      onClose={onClose}
    >
      {anew && (
        <p className="note">
          Tasks of the work order are placed anew, one after the other; those that have begun, and those written by
          hand, stay.
        </p>
      )}
      <Input label="From" placeholder="2027-01-31" focus value={from} onType={setFrom} />
      {data.sections.map((section, at) => (
        <Choice
          key={section.name}
          row
          label={`${section.name || "Work"}, ${section.hours}`}
          value={crews[at] ?? ""}
          none="choose"
          options={data.crews.map((c) => [c.id, c.name] as const)}
          onChoose={(crew) => setCrews(crews.map((c, i) => (i === at ? crew : c)))}
        />
      ))}
      {said && error && (
        <p className="error" role="alert">
          {error.message}
        </p>
      )}
      {said && !error && preview && (
        <div className={styles.would}>
          <p role="status" className="note">
            {preview.changes.length === 0 ? "Everything lies like that." : preview.says.join(" ")}
          </p>
          <Troubles preview={preview} />
        </div>
      )}
    </Ask>
  );
}
