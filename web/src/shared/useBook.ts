import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, isUnreachable, must, Problem } from "./api/client";

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
  const session = useQuery({
    queryKey: ["session"],
    queryFn: () => must(api.GET("/api/session")),
    retry: (times, error) => isUnreachable(error) || (!isSignedOut(error) && times < 3),
  });
  return { session, signedOut: isSignedOut(session.error) };
}

/** A server that is away for a moment, or fails, signs nobody out: only its word that nobody is signed in does. */
const isSignedOut = (error: Error | null) => error instanceof Problem && error.status === 401;

/** Signs the person out here. */
export const signOut = () => must(api.DELETE("/api/session"));
