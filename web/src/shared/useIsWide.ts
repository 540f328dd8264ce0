import { useSyncExternalStore } from "react";

// As in the style sheet of the workbench.
const wide = matchMedia("(min-width: 1700px)");

const listen = (changed: () => void) => {
  wide.addEventListener("change", changed);
  return () => wide.removeEventListener("change", changed);
};

/** Whether there is room for a message and its document side by side. */
export const useIsWide = () => useSyncExternalStore(listen, () => wide.matches);
