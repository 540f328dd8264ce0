import { App } from "antd";
import { useBookId } from "../../shared/useBook";
import { leftOutPart } from "./api";
import { useMarked } from "./useMarked";
import type { LeftOut, Round } from "./useRound";
import { canBePutIn } from "./words";

/** Those left out of a round that somebody marked, to put all of them in at once. */
export interface LeftMarks {
  count: number;
  /** Those whom the choices leave out: they are put in with a reason. */
  toPutIn: string[];
  /** Those who were taken out by hand: they are put back. */
  toPutBack: string[];
  has: (customer: string) => boolean;
  toggle: (left: LeftOut, place: number) => void;
  /** Marks all that can be, from the one that was marked last to this place. */
  to: (place: number) => void;
  /** Marks all that can be. */
  all: () => void;
  /** Unmarks some of them, as they are in the round now. */
  unmark: (customers: string[]) => void;
  none: () => void;
}

/** Whether somebody left out can be marked: whom nothing brings into the round cannot. */
export const canBeMarked = ({ customer, reason }: LeftOut) =>
  customer !== null && (reason === "removed-by-hand" || canBePutIn.includes(reason));

/** The marks of those left out. A customer with two currencies stands in two rows and is marked in both. */
export function useLeftMarks(round: Round): LeftMarks {
  const book = useBookId();
  const { message } = App.useApp();
  const { marked, ...marks } = useMarked<string, string>();
  const of = (isByHand: boolean) =>
    [...marked].filter(([, reason]) => (reason === "removed-by-hand") === isByHand).map(([customer]) => customer);
  const addPart = (from: number, most: number) =>
    marks.addFound(
      leftOutPart(book, round.id, from, most).then((part) => {
        const found = part.filter(canBeMarked);
        if (found.length === 0) {
          void message.info("None of these can be put in: each says why beside its name.");
        }
        return found.map((l) => [l.customer ?? "", l.reason] as const);
      }),
    );
  return {
    count: marked.size,
    toPutIn: of(false),
    toPutBack: of(true),
    has: (customer) => marked.has(customer),
    toggle: ({ customer, reason }, place) => customer !== null && marks.toggle(customer, reason, place),
    to: (place) => {
      const { from, most } = marks.rangeTo(place);
      addPart(from, most);
    },
    all: () => addPart(0, round.leftOutCount),
    unmark: marks.remove,
    none: marks.none,
  };
}
