import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

/** Asks anew for all that a fact about a revision changes on screen. */
export function useRevisionsTold() {
  const queries = useQueryClient();
  return useCallback(
    () =>
      queries.invalidateQueries({
        predicate: (q) =>
          [
            "revisions",
            "stands",
            "proposal",
            "compared",
            "jobs",
            "outbox",
            "message",
            "questions",
            "further",
            "deliver",
          ].includes(String(q.queryKey[0])),
      }),
    [queries],
  );
}
