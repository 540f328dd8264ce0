import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, must } from "./api/client";

/** The number of the book in the address. */
export function useBookId(): number {
  return Number(useParams().book);
}

/** The book in the address. */
export function useBook() {
  const book = useBookId();
  return useQuery({
    queryKey: ["book", book],
    queryFn: () => must(api.GET("/api/books/{book}", { params: { path: { book } } })),
  });
}

/** Who is signed in, and their books. */
export function useSession() {
  return useQuery({ queryKey: ["session"], queryFn: () => must(api.GET("/api/session")), retry: false });
}
