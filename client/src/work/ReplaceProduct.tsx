import { useState } from "react";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { Ask } from "../controls/Ask";
import { Preview } from "./Preview";
import { useChoices, usePinned } from "./choices";
import { Choice } from "../controls/Choice";

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
    <Ask
      title="Replace a product everywhere in this job"
      apply="Replace"
      ready={edit !== null}
      onApply={() => open.send(edit!)}
      onClose={onClose}
    >
      <div className="two">
        <Choice label="Instead of" value={from} options={used.map((p) => [p.id, p.name])} onChoose={setChosen} />
        <Choice
          label="take"
          value={to}
          none="choose"
          options={all.filter((m) => m.id !== from && (!unit || m.unit === unit)).map((m) => [m.id, m.name])}
          onChoose={setTo}
        />
      </div>
      <Preview edit={edit} />
    </Ask>
  );
}
