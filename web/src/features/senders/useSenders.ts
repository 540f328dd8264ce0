import { useQuery } from "@tanstack/react-query";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

export type Sender = Schemas["SenderView"];

/** The mail accounts of the book. */
export function useSenders() {
  const book = useBookId();
  return useQuery({
    queryKey: ["senders", book],
    queryFn: () => must(api.GET("/api/books/{book}/senders", { params: { path: { book } } })),
  });
}
