import { useCallback, useEffect, useState } from "react";
import type { Refused } from "./answered";

/**
 * A page behind a link: asked when it is opened, and again when somebody comes back to it, so that what has come meanwhile is there.
 * `looked` is told only while the page can be seen.
 */
export function usePage<T>(load: () => Promise<T>, looked?: () => void) {
  const [page, setPage] = useState<T | null>(null);
  const [wrong, setWrong] = useState<Refused | null>(null);
  const again = useCallback(
    () =>
      load().then(
        (loaded) => {
          setPage(loaded);
          setWrong(null);
        },
        (error: Refused) => setWrong(error),
      ),
    [load],
  );
  useEffect(() => {
    const visible = () => {
      if (document.visibilityState !== "visible") return;
      void again();
      looked?.();
    };
    visible();
    document.addEventListener("visibilitychange", visible);
    return () => document.removeEventListener("visibilitychange", visible);
  }, [again, looked]);
  return { page, setPage, wrong, again };
}
