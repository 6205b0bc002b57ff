import { useState } from "react";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { EditDialog } from "./EditDialog";
import { Preview } from "./Preview";
import { useChoices, usePinned } from "./choices";

/** One product for another wherever the job uses it: in work, in cells that differ, in parts of assemblies. */
export function ReplaceProduct({ from: first, onClose }: { from?: string; onClose: () => void }) {
  const [open] = useJob();
  const pinned = usePinned();
  const all = useChoices("material");
  const used = pinned?.filter((p) => p.kind === "material") ?? [];
  const [chosen, setChosen] = useState(first ?? "");
  const [to, setTo] = useState("");
  const from = chosen || used[0]?.id || "";
  const unit = all.find((m) => m.id === from)?.unit;
  const edit: Edit | null = from && to ? { type: "replaceProduct", from, to } : null;

  return (
    <EditDialog
      title="Replace a product everywhere in this job"
      apply="Replace"
      ready={edit !== null}
      onApply={() => open.send(edit!)}
      onClose={onClose}
    >
      <div className="two">
        <label>
          <span className="note">Instead of</span>
          <select value={from} onChange={(e) => setChosen(e.target.value)}>
            {used.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="note">take</span>
          <select value={to} onChange={(e) => setTo(e.target.value)}>
            <option value="">choose</option>
            {all
              .filter((m) => m.id !== from && (!unit || m.unit === unit))
              .map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}
                </option>
              ))}
          </select>
        </label>
      </div>
      <Preview edit={edit} />
    </EditDialog>
  );
}
