import { useCallback, useEffect, useRef, useState } from "react";
import { work, type WorkProgress } from "../../shared/api/work";

/** A work that can be started, watched and stopped; leaving the page stops it. */
export function useWork() {
  const stopper = useRef<AbortController | null>(null);
  const [progress, setProgress] = useState<WorkProgress | null>(null);
  const [isWorking, setWorking] = useState(false);
  const stop = useCallback(() => stopper.current?.abort(), []);
  useEffect(() => stop, [stop]);
  const start = useCallback(async <T>(method: "GET" | "POST", path: string, signal?: AbortSignal): Promise<T> => {
    const controller = new AbortController();
    signal?.addEventListener("abort", () => controller.abort());
    stopper.current = controller;
    setProgress(null);
    setWorking(true);
    try {
      return await work<T>(method, path, controller.signal, setProgress);
    } finally {
      if (stopper.current === controller) {
        setWorking(false);
      }
    }
  }, []);
  return { start, stop, progress, isWorking };
}
