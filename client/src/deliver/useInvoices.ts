import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { useJob } from "../job/JobContext";

/** Does something with invoices: what is answered stands at once, what rests on it is asked anew, and a refusal is said. */
export function useInvoices() {
  const [, { job }] = useJob();
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const did = useCallback(
    async (answer: Promise<Schemas["InvoicesView"]>) => {
      const now = await answer;
      queries.setQueryData(askJob.invoices(job).queryKey, now);
      await queries.invalidateQueries({
        predicate: (q) => q.queryKey[0] === "deliver" && q.queryKey[1] === job.id && q.queryKey[2] !== "invoices",
      });
    },
    [queries, job],
  );
  const act = useCallback(
    (answer: Promise<Schemas["InvoicesView"]>) =>
      did(answer).then(
        () => setWrong(""),
        (error: Error) => setWrong(error.message),
      ),
    [did],
  );
  return { job, did, act, wrong };
}
