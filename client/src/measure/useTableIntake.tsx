import { counted } from "../controls/counted";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Check } from "../controls/Check";
import styles from "./measure.module.css";

type Table = Schemas["TableView"];

/** A table on its way in: its mapping, what its rows say, and whether the bad ones are left out. Nothing is kept until it is taken. */
export function useTableIntake<Row extends { row: number; wrong: string | null }>(
  purpose: "places" | "schedule" | "choices",
  read: (body: Schemas["MappedTable"]) => Promise<{ rows: Row[] }>,
) {
  const [, { job }] = useJob();
  const [table, setTable] = useState<Table | null>(null);
  const [mapping, setMapping] = useState<Record<string, number>>({});
  const [leaveOut, setLeaveOut] = useState(false);
  const { data, error, isFetching } = useQuery({
    queryKey: ["read-table", purpose, job.id, job.units, table, mapping],
    queryFn: () => read({ columns: table!.columns, rows: table!.rows, mapping }),
    enabled: table !== null,
    staleTime: Infinity,
    retry: false,
  });
  const bad = data?.rows.filter((r) => r.wrong !== null) ?? [];
  const good = data?.rows.filter((r) => r.wrong === null) ?? [];
  return {
    read: data !== undefined,
    error,
    good,
    bad,
    ready: good.length > 0 && (bad.length === 0 || leaveOut) && !isFetching,
    upload: {
      purpose,
      table,
      mapping,
      onMapping: setMapping,
      onTable: (next: Table) => {
        setTable(next);
        setMapping(next.mapping);
        setLeaveOut(false);
      },
    },
    leaveOut: bad.length > 0 && (
      <Check on={leaveOut} onTick={setLeaveOut}>
        Leave out the {counted(bad.length, "row")} that cannot be read
      </Check>
    ),
  };
}

/** Why each bad row cannot be read. */
export function BadRows({ rows }: { rows: readonly { row: number; wrong: string | null; line?: string }[] }) {
  if (rows.length === 0) return null;
  return (
    <ul className={styles.badrows} aria-label="Rows that cannot be read">
      {rows.slice(0, 100).map((r) => (
        <li key={r.row}>
          Row {r.row}: {r.wrong} {r.line !== undefined && <code>{r.line}</code>}
        </li>
      ))}
    </ul>
  );
}
