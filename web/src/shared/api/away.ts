import { useSyncExternalStore } from "react";

/** What keeps the server, or its database, from being reached; empty while they are. */
let away = "";
const listeners = new Set<() => void>();

/** Notes how the last request went. */
export function noteAway(words: string) {
  if (words !== away) {
    away = words;
    listeners.forEach((listener) => listener());
  }
}

/** What keeps the server from being reached, as the last request found it. */
export function useAway(): string {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => away,
  );
}
