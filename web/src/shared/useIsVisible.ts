import { useSyncExternalStore } from "react";

const listen = (changed: () => void) => {
  document.addEventListener("visibilitychange", changed);
  return () => document.removeEventListener("visibilitychange", changed);
};

/** Whether the page can be seen: it is not in a tab behind another. */
export const useIsVisible = () => useSyncExternalStore(listen, () => document.visibilityState === "visible");
