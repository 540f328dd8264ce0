import styles from "./AgeBar.module.css";
/** How old a balance is, as one small bar: the same order and tones everywhere. */
export function AgeBar({ bands, labels, width = 74 }: { bands: string[]; labels: string[]; width?: number }) {
  const sizes = bands.map((b) => Math.max(0, Number(b)));
  const whole = sizes.reduce((a, b) => a + b, 0);
  const words = bands
    .map((b, i) => (Number(b) > 0 ? `${labels[i] ?? ""}${i === 0 ? "" : " days"}: ${b}` : ""))
    .filter(Boolean)
    .join(", ");
  return (
    <span
      role="img"
      aria-label={words ? `by age ${words}` : "nothing by age"}
      title={words}
      className={styles.bar}
      style={{ width }}
    >
      {whole > 0 &&
        sizes.map((size, i) => (
          <span
            key={i}
            className={i > 0 && size > 0 ? styles.apart : undefined}
            style={{
              width: `${(100 * size) / whole}%`,
              background: `var(--age-${Math.min(i, 4)})`,
            }}
          />
        ))}
    </span>
  );
}
