import { Alert } from "antd";
import { Navigate } from "react-router";
import { useSession } from "../../shared/useBook";

/** Goes to the first book of whoever is signed in. */
export function HomePage() {
  const { session, signedOut } = useSession();
  if (signedOut) {
    return <Navigate to="/sign-in" replace />;
  }
  if (!session.data) {
    return session.error && <Alert className="around-18" type="error" title={session.error.message} />;
  }
  const first = session.data.books[0];
  return <Navigate to={first ? `/books/${first.id}/today` : "/new-book"} replace />;
}
