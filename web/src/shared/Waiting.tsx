import { Alert } from "antd";
import type { ReactNode } from "react";

interface Query<T> {
  data: T | undefined;
  error: Error | null;
  isPending: boolean;
}

/** Shows what a query brought, or says that it is coming, or what went wrong. */
export function Waiting<T>({ query, children }: { query: Query<T>; children: (data: NonNullable<T>) => ReactNode }) {
  if (query.error) {
    return <Alert className="around-18" type="error" title={query.error.message} />;
  }
  if (query.data === undefined || query.data === null) {
    return (
      <p className="quiet inside-18" role="status">
        One moment…
      </p>
    );
  }
  return children(query.data);
}
