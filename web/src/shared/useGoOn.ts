import { useEffect, useRef } from "react";
import { useNavigate } from "react-router";

/**
 * Leads on to where a piece of work ended, once it is done: only who is still at the place that began it.
 * Who has gone elsewhere meanwhile is not fetched back. Tells whether it led on.
 */
export function useGoOn(): (to: string) => Promise<boolean> {
  const navigate = useNavigate();
  const here = useRef(false);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  return async (to) => {
    if (here.current) {
      await navigate(to);
      return true;
    }
    return false;
  };
}
