import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { statusWords } from "../../shared/Shape";
import { useBookId } from "../../shared/useBook";
import styles from "./Ended.module.css";
import { endedRounds, seenEnded } from "../rounds/api";

/** The rounds released by the person who is signed in that have ended since they last looked. */
export function Ended() {
  const book = useBookId();
  const client = useQueryClient();
  const ended = useQuery({
    queryKey: ["ended", book],
    queryFn: () => endedRounds(book),
    refetchInterval: 5000,
  });
  const seeing = useMutation({
    mutationFn: (id: number) => seenEnded(book, id),
    onSuccess: () => client.invalidateQueries({ queryKey: ["ended", book] }),
  });
  if (!ended.data?.length) {
    return null;
  }
  return (
    <section className={styles.ended} aria-label="Rounds that have ended">
      {ended.data.map((e) => (
        <p key={e.id}>
          <Link to={`/books/${book}/rounds/${e.round}`} onClick={() => seeing.mutate(e.round)}>
            {e.name}
          </Link>{" "}
          has ended: {sumOf(e)}.{" "}
          <button type="button" className="link" onClick={() => seeing.mutate(e.round)}>
            Seen<span className="visually-hidden"> {e.name}</span>
          </button>
        </p>
      ))}
    </section>
  );
}

/** "58 sent, 1 refused": what needs nobody comes first. */
function sumOf({ counts }: Schemas["RoundEnd"]): string {
  return Object.entries(counts)
    .sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
    .map(([state, n]) => `${n} ${state === "prepared" ? "stopped" : (statusWords[state] ?? state)}`)
    .join(", ");
}

const order = ["sent", "printed", "exported", "refused", "returned", "unsure", "held", "prepared"];
