import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api } from "../api/client";
import { type Shows, inMoney, moneyByCell } from "../figure/cellFigure";
import { useJob } from "../job/JobContext";

/** Cost and price of cells, places and work, asked for while they are shown. */
export function useCellMoney(shows: Shows) {
  const [, { job }] = useJob();
  const { data } = useQuery({
    queryKey: ["money", job.id, job.version],
    queryFn: async () => (await api.GET("/api/jobs/{id}/cells/money", { params: { path: { id: job.id } } })).data!,
    enabled: inMoney(shows),
    placeholderData: (kept) => kept,
  });
  return useMemo(
    () => ({
      byCell: moneyByCell(data),
      byPlace: new Map((data?.places ?? []).map((p) => [p.place, p] as const)),
      byWork: new Map((data?.work ?? []).map((w) => [w.work, w] as const)),
    }),
    [data],
  );
}
