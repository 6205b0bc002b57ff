import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Schemas, api } from "../api/client";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { DifferenceTable } from "./KeepInBook";
import { Preview } from "./Preview";

const goods = ["role", "material", "equipment", "subcontract", "priceOnly", "setUp"];

/** What the Book has newer than this job; what it would move is shown before any of it is taken. */
export function RefreshPrices({ onClose }: { onClose: () => void }) {
  const [open, { job, answers }] = useJob();
  const { data } = useQuery({
    queryKey: ["job-book", job.id, answers],
    queryFn: async () => (await api.GET("/api/jobs/{id}/book", { params: { path: { id: job.id } } })).data!,
  });
  const newer = data?.filter((p) => p.differences.length > 0) ?? [];
  const [changed, setChanged] = useState<Readonly<Record<string, boolean>>>({});
  const usual = (p: Schemas["PinnedView"]) => goods.includes(p.kind) && !p.changedHere;
  const entries = newer.filter((p) => changed[p.id] ?? usual(p)).map((p) => p.id);
  const edit: Edit | null = entries.length === 0 ? null : { type: "takeFromBook", entries, work: null };
  const [wrong, setWrong] = useState("");

  async function go() {
    try {
      await open.send(edit!);
      onClose();
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  return (
    <Dialog open onClose={onClose} aria-labelledby="refresh-title" fullWidth maxWidth="md">
      <DialogTitle id="refresh-title">Refresh prices from the Book</DialogTitle>
      <DialogContent>
        {!data ? (
          <p className="note">Comparing…</p>
        ) : newer.length === 0 ? (
          <p>Everything this job uses is as the Book has it.</p>
        ) : (
          <>
            <p>
              The job keeps what is not ticked. Goods, wages and prices are ticked; rates, and what was changed in this
              job, are not.
            </p>
            <ul className="refresh">
              {newer.map((p) => (
                <li key={p.id}>
                  <details>
                    <summary>
                      <label>
                        <input
                          type="checkbox"
                          checked={changed[p.id] ?? usual(p)}
                          onChange={(e) => setChanged({ ...changed, [p.id]: e.target.checked })}
                        />{" "}
                        {p.name}
                      </label>{" "}
                      <small>
                        {p.changedHere ? "changed in this job" : `version ${p.version}, the Book has ${p.bookVersion}`}
                      </small>
                    </summary>
                    <DifferenceTable lines={p.differences} was="in this job" now="in the Book" />
                  </details>
                </li>
              ))}
            </ul>
            {edit && <Preview edit={edit} />}
          </>
        )}
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Back</Button>
        <Button variant="contained" disabled={!edit} onClick={() => void go()}>
          Take {entries.length}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
