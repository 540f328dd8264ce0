import { Alert, Button } from "antd";

import { useBookId } from "../../shared/useBook";
import { useLookedAt, type Round } from "./useRound";
import roundsStyles from "./rounds.module.css";
import { nextChanged } from "./api";

/** What changed by itself since somebody looked through the round, with ways to look at it. */
export function ChangedLine({
  round,
  place,
  onPick,
}: {
  round: Round;
  place: number | undefined;
  onPick: (customer: string) => void;
}) {
  const book = useBookId();
  const lookedAt = useLookedAt(round);
  if (!round.changed) {
    return null;
  }
  const next = async () => {
    const { customer } = await nextChanged(book, round.id, place ?? -1);
    if (customer !== null) {
      onPick(customer);
    }
  };
  return (
    <Alert
      type="warning"
      className={roundsStyles.benchChanged}
      title={round.changed}
      action={
        <>
          <Button size="small" onClick={() => void next()}>
            Next changed
          </Button>{" "}
          <Button size="small" onClick={() => lookedAt(null)}>
            Seen all
          </Button>
        </>
      }
    />
  );
}
