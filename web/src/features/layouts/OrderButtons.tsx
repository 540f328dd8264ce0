import styles from "./OrderButtons.module.css";
/** Moves an entry of a list up or down, or takes it away. */
export function OrderButtons({
  at,
  count,
  names,
  canGo = true,
  onMove,
  onGo,
}: {
  at: number;
  count: number;
  names: { up: string; down: string; away: string };
  canGo?: boolean;
  onMove: (by: number) => void;
  onGo: () => void;
}) {
  return (
    <span className={styles.layoutActs}>
      <button type="button" disabled={at === 0} aria-label={names.up} onClick={() => onMove(-1)}>
        ↑
      </button>
      <button type="button" disabled={at === count - 1} aria-label={names.down} onClick={() => onMove(1)}>
        ↓
      </button>
      <button type="button" disabled={!canGo} aria-label={names.away} onClick={onGo}>
        ×
      </button>
    </span>
  );
}
