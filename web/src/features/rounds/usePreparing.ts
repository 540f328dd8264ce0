import { useRef, useState } from "react";
import { work, type WorkProgress } from "../../shared/api/work";
import type { Round } from "./useRound";

/**
 * Making up the parcels of a round: how far that is, and whether a person has stopped it. Leaving the page does not stop it: what
 * was changed a moment ago would be lost.
 */
export function usePreparing() {
  const stopper = useRef<AbortController>(undefined);
  const [progress, setProgress] = useState<WorkProgress | null>(null);
  const [isStopped, setStopped] = useState(false);
  const run = async (method: "POST" | "PUT", path: string, body?: object): Promise<Round> => {
    const controller = new AbortController();
    stopper.current = controller;
    setProgress(null);
    setStopped(false);
    try {
      return await work<Round>(method, path, controller.signal, setProgress, body);
    } finally {
      setStopped(controller.signal.aborted);
    }
  };
  return { run, progress, isStopped, stop: () => stopper.current?.abort() };
}

/** Whether an error is only that a person stopped it. */
export const wasStopped = (error: Error) => error.name === "AbortError";
