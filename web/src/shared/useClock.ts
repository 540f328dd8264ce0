import { dayOf, moment } from "./figure";
import { useBook } from "./useBook";

/** Writes moments as the clock of the book has them, wherever the browser is. */
export function useClock() {
  const zone = useBook().data?.timeZone;
  return { moment: (iso: string) => moment(iso, zone), dayOf: (iso: string) => dayOf(iso, zone) };
}
