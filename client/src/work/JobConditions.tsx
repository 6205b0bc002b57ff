import { useState } from "react";
import { Ask } from "../controls/Ask";
import { Field } from "../controls/Field";
import { useJob } from "../job/JobContext";
import { ConditionChecks } from "./Settings";

/** Conditions on all work of the job, and one factor on all its labour with a reason. */
export function JobConditions({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const [reason, setReason] = useState(job.pace?.reason ?? "");
  const [factor, setFactor] = useState(job.pace?.factor ?? "");
  const keep = (f: string, r: string) =>
    open.send({
      type: "setPace",
      was: job.pace ?? null,
      pace: f.trim() === "" ? null : { factor: f.trim(), reason: r.trim() },
    });
  return (
    <Ask title="Conditions on the whole job" width="xs" onClose={onClose}>
      <ConditionChecks
        chosen={[job.conditions]}
        onChange={(now) =>
          void open.tell({ type: "setConditions", was: [...job.conditions], conditions: now(job.conditions) })
        }
      />
      <h3>Pace of this job</h3>
      <Field
        label="Why it goes slower or quicker"
        value={reason}
        onKeep={(text) => {
          setReason(text);
          return factor === "" ? Promise.resolve() : keep(factor, text);
        }}
      />
      <Field
        label="All labour hours times"
        value={job.pace?.factor ?? ""}
        hint="1.1 is a tenth more hours; empty for none"
        onKeep={(text) => {
          setFactor(text);
          return keep(text, reason);
        }}
      />
      <p className="note">
        Conditions on one place, on a band of its walls, on one work item or one cell are in the side sheet.
      </p>
    </Ask>
  );
}
