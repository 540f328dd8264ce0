import { Button } from "antd";
import { money } from "../../shared/figure";
import styles from "./MarkedBar.module.css";
import { useMarkedSum, type Marks } from "./useMarks";
import type { Round } from "./useRound";

/** How many parcels are marked, what they come to, and what can be done to all of them. */
export function MarkedBar({
  round,
  marks,
  onHold,
  onTakeOut,
  onRelease,
}: {
  round: Round;
  marks: Marks;
  onHold: (holds: boolean) => void;
  onTakeOut: () => void;
  onRelease: () => void;
}) {
  const sum = useMarkedSum(round, marks).data;
  const isOpen = round.releasedAt === null;
  return (
    <section aria-label="Marked parcels" className={styles.marked}>
      <span role="status">
        <strong>{(sum?.parcels ?? marks.count).toLocaleString("en-GB")} marked</strong>
        {sum && sum.totals.length > 0 && ` · ${sum.totals.map((t) => money(t.amount, t.currency)).join(" · ")}`}
      </span>
      {isOpen && (
        <>
          <Button size="small" onClick={() => onHold(true)}>
            Hold <kbd aria-hidden>⇧H</kbd>
          </Button>
          {(sum?.held ?? 0) > 0 && (
            <Button size="small" onClick={() => onHold(false)}>
              Let go
            </Button>
          )}
          <Button size="small" onClick={onTakeOut}>
            Take out <kbd aria-hidden>⇧X</kbd>
          </Button>
        </>
      )}
      <Button size="small" disabled={(sum?.ready ?? 0) === 0} onClick={onRelease}>
        Release {sum?.ready ?? ""} <kbd aria-hidden>⇧R</kbd>
      </Button>
      <Button size="small" type="text" aria-label="Unmark all" title="Unmark all" onClick={marks.none}>
        ✕
      </Button>
    </section>
  );
}
