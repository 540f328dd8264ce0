import { useQuery } from "@tanstack/react-query";

import { useBookId } from "../../shared/useBook";
import { customerHistory } from "./api";

/** What was with a customer over time. */
export function useHistory(customer: string) {
  const book = useBookId();
  return useQuery({
    queryKey: ["history", book, customer],
    queryFn: () => customerHistory(book, customer),
  });
}
