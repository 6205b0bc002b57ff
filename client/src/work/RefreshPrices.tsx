import { useState } from "react";
import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { Ask } from "../controls/Ask";
import { DifferenceTable } from "./KeepInBook";
import { Preview } from "./Preview";
import { usePinned } from "./choices";
import { Check } from "../controls/Check";
import styles from "./work.module.css";

const goods = ["role", "material", "equipment", "subcontract", "priceOnly", "setUp"];

/** What the Book has newer than this job; what it would move is shown before any of it is taken. */
export function RefreshPrices({ onClose }: { onClose: () => void }) {
  const [open] = useJob();
  const data = usePinned();
  const newer = data?.filter((p) => p.differences.length > 0) ?? [];
  const [changed, setChanged] = useState<Readonly<Record<string, boolean>>>({});
  const usual = (p: Schemas["PinnedView"]) => goods.includes(p.kind) && !p.changedHere;
  const entries = newer.filter((p) => changed[p.id] ?? usual(p)).map((p) => p.id);
  const edit: Edit | null = entries.length === 0 ? null : { type: "takeFromBook", entries, work: null };

  return (
    <Ask
      title="Refresh prices from the Book"
      apply={`Take ${entries.length}`}
      ready={edit !== null}
      width="md"
      onApply={() => open.send(edit!)}
      onClose={onClose}
    >
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
          <ul className={styles.refresh}>
            {newer.map((p) => (
              <li key={p.id}>
                <Check on={changed[p.id] ?? usual(p)} onTick={(on) => setChanged({ ...changed, [p.id]: on })}>
                  {p.name}
                </Check>
                <details>
                  <summary>
                    {p.changedHere ? "changed in this job" : `version ${p.version}, the Book has ${p.bookVersion}`}
                  </summary>
                  <DifferenceTable lines={p.differences} was="in this job" now="in the Book" />
                </details>
              </li>
            ))}
          </ul>
          {edit && <Preview edit={edit} />}
        </>
      )}
    </Ask>
  );
}
