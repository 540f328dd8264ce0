import { useAway } from "./api/away";

/** Says above everything that the server cannot be reached, as long as it cannot. What is on the page stays, and goes on by itself. */
export function AwayLine() {
  const away = useAway();
  return away ? (
    <p className="away" role="alert">
      {away}
    </p>
  ) : null;
}
