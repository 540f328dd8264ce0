import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useBookId } from "../../shared/useBook";
import { markedSum, parcelKeys } from "./api";
import { useMarked } from "./useMarked";
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
  const { marked, ...marks } = useMarked<number, string>();
  const addPart = (find: string, from: number, most: number | undefined) =>
    marks.addFound(parcelKeys(book, round.id, find, from, most).then((part) => part.map(entryOf)));
  return {
    count: marked.size,
    ids: [...marked.keys()],
    customers: [...marked.values()],
    has: (parcel) => marked.has(parcel),
    toggle: ({ id, customer }, place) => marks.toggle(id, customer, place),
    add: (parcels, place) => marks.add(parcels.map(entryOf), place),
    to: (place, find) => {
      const { from, most } = marks.rangeTo(place);
      addPart(find, from, most);
    },
    all: (find) => addPart(find, 0, undefined),
    none: marks.none,
  };
}

const entryOf = ({ id, customer }: MarkedParcel) => [id, customer] as const;

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
