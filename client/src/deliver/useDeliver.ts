import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { bookChanged } from "../book/useEntry";
import { useJob } from "../job/JobContext";

/** Does something at the station: what is answered stands at once, what rests on it is asked anew, and a refusal is said. */
function useAnswers<View>(asked: (job: { id: string; version: number }) => { queryKey: readonly unknown[] }) {
  const [, { job }] = useJob();
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const did = useCallback(
    async (answer: Promise<View>) => {
      const now = await answer;
      const { queryKey } = asked(job);
      queries.setQueryData(queryKey, now);
      await queries.invalidateQueries({
        predicate: (q) => q.queryKey[0] === "deliver" && q.queryKey[1] === job.id && q.queryKey[2] !== queryKey[2],
      });
    },
    [queries, job, asked],
  );
  const act = useCallback(
    (answer: Promise<View>) =>
      did(answer).then(
        () => setWrong(""),
        (error: Error) => setWrong(error.message),
      ),
    [did],
  );
  return { job, did, act, wrong };
}

/** What is done on site. */
export function useDeliver() {
  const answers = useAnswers<Schemas["DeliverView"]>(askJob.deliver);
  const queries = useQueryClient();
  /** Asks anew for hours and rates, and for the Book, which has another version of an entry. */
  const rates = useCallback(async () => {
    await queries.invalidateQueries({ queryKey: ["deliver"] });
    await bookChanged(queries);
  }, [queries]);
  return { ...answers, rates };
}

/** What is billed and paid. */
export const useInvoices = () => useAnswers<Schemas["InvoicesView"]>(askJob.invoices);

/** The visits of a round. */
export function useVisits() {
  const answers = useAnswers<Schemas["RoundView"]>(askJob.visits);
  const queries = useQueryClient();
  const { job } = answers;
  /** Asks anew for all of the station: a visit was put on another day. */
  const again = useCallback(() => queries.invalidateQueries({ queryKey: ["deliver", job.id] }), [queries, job]);
  return { ...answers, again };
}

/** What is to be mended, and that the work was taken. */
export const useCompletion = () => useAnswers<Schemas["CompletionView"]>(askJob.completion);

/** What is bought, and moves in stock. */
export const useBuying = () => useAnswers<Schemas["BuyingView"]>(askJob.buying);
