import { App } from "antd";
import { useRef, useState } from "react";

/** What was marked in a list, each with something that is known of it, and where the last one stands. */
export function useMarked<K, V>() {
  const { message } = App.useApp();
  const [marked, setMarked] = useState<ReadonlyMap<K, V>>(new Map());
  const last = useRef<number>(undefined);
  const add = (found: readonly (readonly [K, V])[]) => setMarked((now) => new Map([...now, ...found]));
  return {
    marked,
    /** Marks some; the last of them stands at a place, where one is known. */
    add: (found: readonly (readonly [K, V])[], place: number | undefined) => {
      last.current = place;
      add(found);
    },
    /** Marks some as soon as the server has said which. */
    addFound: (found: Promise<readonly (readonly [K, V])[]>) => {
      found.then(add, (error: unknown) => message.error(error instanceof Error ? error.message : String(error)));
    },
    /** Marks one, or not any more. */
    toggle: (key: K, value: V, place: number | undefined) => {
      last.current = place;
      setMarked((now) => {
        const next = new Map(now);
        if (!next.delete(key)) {
          next.set(key, value);
        }
        return next;
      });
    },
    /** The lines from the one that was marked last to this one, which is the last now. */
    rangeTo: (place: number) => {
      const from = last.current ?? place;
      last.current = place;
      return { from: Math.min(from, place), most: Math.abs(from - place) + 1 };
    },
    remove: (keys: readonly K[]) => setMarked((now) => new Map([...now].filter(([key]) => !keys.includes(key)))),
    none: () => {
      last.current = undefined;
      setMarked(new Map());
    },
  };
}
