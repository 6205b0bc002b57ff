import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { type Shows, inMoney, moneyByCell } from "../figure/cellFigure";
import { useJob } from "../job/JobContext";
import { askJob } from "../api/jobQueries";

/** Cost and price of cells, places and work, asked for while they are shown. */
export function useCellMoney(shows: Shows) {
  const [, { job }] = useJob();
  const { data } = useQuery({ ...askJob.cellMoney(job), enabled: inMoney(shows) });
  return useMemo(
    () => ({
      byCell: moneyByCell(data),
      byPlace: new Map((data?.places ?? []).map((p) => [p.place, p] as const)),
      byWork: new Map((data?.work ?? []).map((w) => [w.work, w] as const)),
    }),
    [data],
  );
}
