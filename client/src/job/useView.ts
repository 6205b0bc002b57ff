import { useSearchParams } from "react-router";
import { useKept } from "./useKept";

/**
 * The view of a station that is shown: the one that the address asks for, until another is chosen, or else the last that was; `instead` is one that the address asks for in another
 * way.
 */
export function useView<T extends string>(
  job: string,
  station: string,
  views: Record<T, string>,
  initial: T,
  instead?: (params: URLSearchParams) => T | null,
): [T, (to: T) => void] {
  const [kept, setKept] = useKept<T>(job, `${station}/view`, initial);
  const [params, setParams] = useSearchParams();
  const asked = instead?.(params) ?? params.get("view");
  return [
    asked && asked in views ? (asked as T) : kept,
    (to) => {
      setKept(to);
      if (asked) setParams({}, { replace: true });
    },
  ];
}
