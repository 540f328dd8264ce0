import { useSyncExternalStore } from "react";

const asked = matchMedia("(prefers-reduced-motion: reduce)");

function listen(changed: () => void) {
  asked.addEventListener("change", changed);
  return () => asked.removeEventListener("change", changed);
}

/** Whether the person has asked their system for less movement. */
export const useReducedMotion = () => useSyncExternalStore(listen, () => asked.matches);
