import { Button } from "antd";
import styles from "./MarkedBar.module.css";
import type { LeftMarks } from "./useLeftMarks";

/** How many of those left out are marked, and what can be done to all of them. */
export function LeftMarkedBar({
  marks,
  onPutIn,
  onPutBack,
}: {
  marks: LeftMarks;
  onPutIn: () => void;
  onPutBack: () => void;
}) {
  const { toPutIn, toPutBack } = marks;
  return (
    <section aria-label="Marked among those left out" className={styles.marked}>
      <span role="status">
        <strong>{marks.count.toLocaleString("en-GB")} left out marked</strong>
      </span>
      {toPutIn.length > 0 && (
        <Button size="small" onClick={onPutIn}>
          Put in {toPutIn.length}…
        </Button>
      )}
      {toPutBack.length > 0 && (
        <Button size="small" onClick={onPutBack}>
          Put back {toPutBack.length}
        </Button>
      )}
      <Button
        size="small"
        type="text"
        aria-label="Unmark those left out"
        title="Unmark those left out"
        onClick={marks.none}
      >
        ✕
      </Button>
    </section>
  );
}
