import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { App } from "antd";
import { useRef, useState } from "react";
import { useBookId } from "../../shared/useBook";
import { markedSum, parcelKeys } from "./api";
import type { Round } from "./useRound";

/** A parcel by its number and its customer. */
export interface MarkedParcel {
  id: number;
  customer: string;
}

/** The parcels of a round that somebody marked, to do something to all of them. */
export interface Marks {
  count: number;
  ids: number[];
  customers: string[];
  has: (parcel: number) => boolean;
  /** Marks a parcel, or not any more. */
  toggle: (parcel: MarkedParcel, place: number | undefined) => void;
  /** Marks parcels, the last of them at a place. */
  add: (parcels: MarkedParcel[], place: number) => void;
  /** Marks all from the place that was marked last to this one. */
  to: (place: number, find: string) => void;
  /** Marks all that a text finds; without one, all of the round. */
  all: (find: string) => void;
  none: () => void;
}

/** The marks of a round, as long as it is open. */
export function useMarks(round: Round): Marks {
  const book = useBookId();
  const { message } = App.useApp();
  const [marked, setMarked] = useState<ReadonlyMap<number, string>>(new Map());
  const last = useRef<number>(undefined);
  const add = (parcels: MarkedParcel[]) =>
    setMarked((now) => new Map([...now, ...parcels.map((p) => [p.id, p.customer] as const)]));
  const fetchAndAdd = (find: string, from: number, most: number | undefined) => {
    parcelKeys(book, round.id, find, from, most).then(add, (error: unknown) =>
      message.error(error instanceof Error ? error.message : String(error)),
    );
  };
  return {
    count: marked.size,
    ids: [...marked.keys()],
    customers: [...marked.values()],
    has: (parcel) => marked.has(parcel),
    toggle: ({ id, customer }, place) => {
      last.current = place;
      setMarked((now) => {
        const next = new Map(now);
        if (!next.delete(id)) {
          next.set(id, customer);
        }
        return next;
      });
    },
    add: (parcels, place) => {
      last.current = place;
      add(parcels);
    },
    to: (place, find) => {
      const from = Math.min(last.current ?? place, place);
      const most = Math.abs((last.current ?? place) - place) + 1;
      last.current = place;
      fetchAndAdd(find, from, most);
    },
    all: (find) => fetchAndAdd(find, 0, undefined),
    none: () => {
      last.current = undefined;
      setMarked(new Map());
    },
  };
}

/** What the marked parcels come to, as the round is now. */
export function useMarkedSum(round: Round, marks: Marks) {
  const book = useBookId();
  return useQuery({
    queryKey: ["marked", book, round.id, round.revision, round.preparedAt, round.releasedAt, marks.ids],
    queryFn: () => markedSum(book, round.id, marks.ids),
    enabled: marks.count > 0,
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
}
