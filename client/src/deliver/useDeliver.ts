import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { bookChanged } from "../book/useEntry";
import { useJob } from "../job/JobContext";

/** Does something on site: what is answered stands at once, what rests on it is asked anew, and a refusal is said. */
export function useDeliver() {
  const [, { job }] = useJob();
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const did = useCallback(
    async (answer: Promise<Schemas["DeliverView"]>) => {
      const now = await answer;
      queries.setQueryData(askJob.deliver(job).queryKey, now);
      await queries.invalidateQueries({
        predicate: (q) => q.queryKey[0] === "deliver" && q.queryKey[1] === job.id && q.queryKey[2] !== "all",
      });
    },
    [queries, job],
  );
  const act = useCallback(
    (answer: Promise<Schemas["DeliverView"]>) =>
      did(answer).then(
        () => setWrong(""),
        (error: Error) => setWrong(error.message),
      ),
    [did],
  );
  /** Asks anew for hours and rates, and for the Book, which has another version of an entry. */
  const rates = useCallback(async () => {
    await queries.invalidateQueries({ queryKey: ["deliver"] });
    await bookChanged(queries);
  }, [queries]);
  return { job, did, act, wrong, rates };
}
