import { useCallback, useState } from "react";

/** A state of a job's screen that is kept while the browser tab is open, so that it stands when one comes back. */
export function useKept<T>(job: string, name: string, initial: T): [T, (now: T) => void] {
  const key = `${job}/${name}`;
  const [value, setValue] = useState<T>(() => {
    const kept = sessionStorage.getItem(key);
    return kept === null ? initial : (JSON.parse(kept) as T);
  });
  const set = useCallback(
    (now: T) => {
      sessionStorage.setItem(key, JSON.stringify(now));
      setValue(now);
    },
    [key],
  );
  return [value, set];
}
