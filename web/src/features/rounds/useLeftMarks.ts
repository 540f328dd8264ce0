import { useState } from "react";
import type { LeftOut } from "./useRound";
import { canBePutIn } from "./words";

/** Those left out of a round that somebody marked, to put all of them in at once. */
export interface LeftMarks {
  count: number;
  /** Those whom the choices leave out: they are put in with a reason. */
  toPutIn: string[];
  /** Those who were taken out by hand: they are put back. */
  toPutBack: string[];
  has: (customer: string) => boolean;
  toggle: (left: LeftOut) => void;
  /** Unmarks some of them, as they are in the round now. */
  unmark: (customers: string[]) => void;
  none: () => void;
}

/** Whether somebody left out can be marked: whom nothing brings into the round cannot. */
export const canBeMarked = ({ customer, reason }: LeftOut) =>
  customer !== null && (reason === "removed-by-hand" || canBePutIn.includes(reason));

/** The marks of those left out. A customer with two currencies stands in two rows and is marked in both. */
export function useLeftMarks(): LeftMarks {
  const [marked, setMarked] = useState<ReadonlyMap<string, string>>(new Map());
  const of = (isByHand: boolean) =>
    [...marked].filter(([, reason]) => (reason === "removed-by-hand") === isByHand).map(([customer]) => customer);
  return {
    count: marked.size,
    toPutIn: of(false),
    toPutBack: of(true),
    has: (customer) => marked.has(customer),
    toggle: ({ customer, reason }) =>
      setMarked((now) => {
        const next = new Map(now);
        if (customer !== null && !next.delete(customer)) {
          next.set(customer, reason);
        }
        return next;
      }),
    unmark: (customers) => setMarked((now) => new Map([...now].filter(([customer]) => !customers.includes(customer)))),
    none: () => setMarked(new Map()),
  };
}
