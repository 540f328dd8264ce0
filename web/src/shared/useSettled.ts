import { useEffect, useState } from "react";

/** A value once it has stayed the same for so many milliseconds; what is told as another object is another value. */
export function useSettled<T>(value: T, pause: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const waiting = setTimeout(() => setSettled(value), pause);
    return () => clearTimeout(waiting);
  }, [value, pause]);
  return settled;
}
