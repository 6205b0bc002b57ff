import { useCallback, useEffect, useRef } from "react";
import { useLocation } from "react-router";

/**
 * Begun before something is asked of the server, it says afterwards whether this screen is still the one that is open: an answer that comes late must not
 * drag a person back to where they have gone on from.
 */
export function useStay() {
  const { pathname } = useLocation();
  const open = useRef<string | null>(pathname);
  useEffect(() => {
    open.current = pathname;
    return () => {
      open.current = null;
    };
  }, [pathname]);
  return useCallback(() => {
    const begun = open.current;
    return () => begun !== null && open.current === begun;
  }, []);
}
