import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { senderList } from "./api";

export type Sender = Schemas["SenderView"];

/** The mail accounts of the book. */
export function useSenders() {
  const book = useBookId();
  return useQuery({
    queryKey: ["senders", book],
    queryFn: () => senderList(book),
  });
}
