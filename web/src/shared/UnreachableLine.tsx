import { useMutationState } from "@tanstack/react-query";
import { useEffect } from "react";
import { useUnreachable } from "./api/unreachable";
import { isUnreachable } from "./api/client";
import styles from "./UnreachableLine.module.css";

/**
 * Says above everything that the server cannot be reached, as long as it cannot or a change still waits to be made because of it.
 * What is on the page stays, and goes on by itself; who leaves Rendal meanwhile is asked first.
 */
export function UnreachableLine() {
  const waiting = useMutationState({
    filters: { status: "pending" },
    select: (change) => change.state.failureReason,
  }).find(isUnreachable);
  const words = useUnreachable() || waiting?.message;
  const unsaved = waiting !== undefined;
  useEffect(() => {
    if (!unsaved) {
      return;
    }
    const ask = (leaving: BeforeUnloadEvent) => leaving.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [unsaved]);
  return words ? (
    <p className={styles.unreachable} role="alert">
      {words}
    </p>
  ) : null;
}
