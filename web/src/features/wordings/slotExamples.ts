import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { createContext, useContext } from "react";

import { useBookId } from "../../shared/useBook";
import { slotList } from "./api";

/** The customer whose values the slots show as examples; null where none is in view. */
export const CustomerInView = createContext<string | null>(null);

/** The slots there are, the same for every text, each with what it holds of the customer in view. */
export function useSlots() {
  const book = useBookId();
  const customer = useContext(CustomerInView) ?? "";
  return useQuery({
    queryKey: ["slots", book, customer],
    queryFn: () => slotList(book, customer),
    placeholderData: keepPreviousData,
    // Every chip asks; one answer serves them all for a while.
    staleTime: 30_000,
  });
}
