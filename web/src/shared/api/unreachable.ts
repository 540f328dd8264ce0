import { useSyncExternalStore } from "react";

/** What keeps the server, or its database, from being reached; empty while they are. */
let unreachable = "";
const listeners = new Set<() => void>();

/** Notes how the last request went. */
export function noteUnreachable(words: string) {
  if (words !== unreachable) {
    unreachable = words;
    listeners.forEach((listener) => listener());
  }
}

/** What keeps the server from being reached, as the last request found it. */
export function useUnreachable(): string {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => unreachable,
  );
}
