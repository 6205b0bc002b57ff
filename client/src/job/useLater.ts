import { startTransition, useEffect, useState } from "react";

/** A value once what it moved elsewhere has been painted: the eye is on the cell that was edited, not on what hangs on it. */
export function useLater<T>(value: T): T {
  const [later, setLater] = useState(value);
  useEffect(() => {
    let after: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      after = setTimeout(() => startTransition(() => setLater(() => value)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(after);
    };
  }, [value]);
  return later;
}
