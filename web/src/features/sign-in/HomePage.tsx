import { Navigate } from "react-router";
import { useSession } from "../../shared/useBook";

/** Goes to the first book of whoever is signed in. */
export function HomePage() {
  const session = useSession();
  if (session.error) {
    return <Navigate to="/sign-in" replace />;
  }
  const first = session.data?.books[0];
  return session.data ? <Navigate to={first ? `/books/${first.id}/today` : "/new-book"} replace /> : null;
}
