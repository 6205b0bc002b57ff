import { useCallback, useRef } from "react";

/** Does one thing after another, each begun when the one before has ended, well or not: what is typed quickly is then made from what was typed just before, and is no conflict with oneself. */
export function useInTurn() {
  const before = useRef<Promise<unknown>>(Promise.resolve());
  return useCallback(<T>(what: () => Promise<T>): Promise<T> => {
    const done = before.current.catch(() => undefined).then(what);
    before.current = done;
    return done;
  }, []);
}
