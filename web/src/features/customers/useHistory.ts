import { useQuery } from "@tanstack/react-query";
import { api, must } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

/** What was with a customer over time. */
export function useHistory(customer: string) {
  const book = useBookId();
  return useQuery({
    queryKey: ["history", book, customer],
    queryFn: () =>
      must(api.GET("/api/books/{book}/customers/history", { params: { path: { book }, query: { key: customer } } })),
  });
}
