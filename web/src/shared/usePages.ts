import { useQueries, type QueryKey } from "@tanstack/react-query";
import { pagesOf } from "./pages";

/** A long list of which only the pages that are wanted are fetched. */
export interface Pages<T> {
  /** What stands at a place; undefined while its page is on the way. */
  at: (place: number) => T | undefined;
  /** The place of the first that is so, among what has been fetched. */
  placeOf: (is: (item: T) => boolean) => number | undefined;
}

/** Fetches the pages that hold some places of a list. */
export function usePages<T>({
  queryKey,
  first,
  size,
  places,
  fetch,
}: {
  queryKey: QueryKey;
  /** The first page, where it came with something else. */
  first: T[] | undefined;
  size: number;
  /** From which to which place, each both inclusive. */
  places: [number, number][];
  fetch: (from: number) => Promise<T[]>;
}): Pages<T> {
  const pages = pagesOf(places, size).filter((page) => page > 0 || first === undefined);
  const results = useQueries({
    queries: pages.map((page) => ({ queryKey: [...queryKey, page], queryFn: () => fetch(page * size) })),
  });
  const page = (number: number) => (number === 0 && first ? first : results[pages.indexOf(number)]?.data);
  return {
    at: (place) => page(Math.floor(place / size))?.[place % size],
    placeOf: (is) => {
      for (const number of first ? [0, ...pages] : pages) {
        const within = page(number)?.findIndex(is) ?? -1;
        if (within >= 0) {
          return number * size + within;
        }
      }
      return undefined;
    },
  };
}
