import { useEffect, useRef, useState } from "react";

/** The width of an element in pixels as it is now; undefined before it was measured. */
export function useWidth<E extends HTMLElement>() {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState<number>();
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width));
    if (ref.current) {
      watch.observe(ref.current);
    }
    return () => watch.disconnect();
  }, []);
  return [ref, width] as const;
}
