import { startTransition, useCallback, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";

/**
 * A value once what it moved elsewhere has been painted: the eye is on the cell that was edited, not on what hangs on it.
 * The second is for whoever will not wait: it catches up at once.
 */
export function useLater<T>(value: T): [T, () => void] {
  const [later, setLater] = useState(value);
  const latest = useRef(value);
  useEffect(() => {
    latest.current = value;
    let after: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      after = setTimeout(() => startTransition(() => setLater(() => value)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(after);
    };
  }, [value]);
  const catchUp = useCallback(() => flushSync(() => setLater(() => latest.current)), []);
  return [later, catchUp];
}
