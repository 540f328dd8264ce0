import { Alert, Button } from "antd";
import { Component, Suspense, type ReactNode } from "react";
import { Outlet, useLocation } from "react-router";

/** Stands around each page: while it loads it says so, and a fault in it takes nothing else down. */
export function PageBoundary() {
  return (
    <Boundary place={useLocation().pathname}>
      <Suspense
        fallback={
          <p className="quiet inside-18" role="status">
            One moment…
          </p>
        }
      >
        <Outlet />
      </Suspense>
    </Boundary>
  );
}

/** Catches what a page throws while it is drawn. Who goes to another place sees that. */
export class Boundary extends Component<{ place: string; children: ReactNode }, { fault: Error | null }> {
  override state: { fault: Error | null } = { fault: null };

  static getDerivedStateFromError(fault: unknown) {
    return { fault: fault instanceof Error ? fault : new Error(String(fault)) };
  }

  override componentDidUpdate(before: { place: string }) {
    if (before.place !== this.props.place && this.state.fault) {
      this.setState({ fault: null });
    }
  }

  override render() {
    return this.state.fault === null ? (
      this.props.children
    ) : (
      <Alert
        className="around-18"
        type="error"
        title="This page cannot be shown."
        description={`Nothing was lost on the server. Load it again; if that does not help, pass this on to who looks after Rendal: ${this.state.fault.message}`}
        action={<Button onClick={() => window.location.reload()}>Load again</Button>}
      />
    );
  }
}
