import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { Preview } from "./Preview";
import { useChoices } from "./choices";

/** One product for another wherever the job uses it: in work, in cells that differ, in parts of assemblies. */
export function ReplaceProduct({ from: first, onClose }: { from?: string; onClose: () => void }) {
  const [open, { job, answers }] = useJob();
  const { data: pinned } = useQuery({
    queryKey: ["job-book", job.id, answers],
    queryFn: async () => (await api.GET("/api/jobs/{id}/book", { params: { path: { id: job.id } } })).data!,
  });
  const all = useChoices("material");
  const used = pinned?.filter((p) => p.kind === "material") ?? [];
  const [chosen, setChosen] = useState(first ?? "");
  const [to, setTo] = useState("");
  const [wrong, setWrong] = useState("");
  const from = chosen || used[0]?.id || "";
  const unit = all.find((m) => m.id === from)?.unit;
  const edit: Edit | null = from && to ? { type: "replaceProduct", from, to } : null;

  async function go() {
    try {
      await open.send(edit!);
      onClose();
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  return (
    <Dialog open onClose={onClose} aria-labelledby="replace-title" fullWidth maxWidth="sm">
      <DialogTitle id="replace-title">Replace a product everywhere in this job</DialogTitle>
      <DialogContent>
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
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Back</Button>
        <Button variant="contained" disabled={!edit} onClick={() => void go()}>
          Replace
        </Button>
      </DialogActions>
    </Dialog>
  );
}
