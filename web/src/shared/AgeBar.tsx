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
      style={{ display: "inline-flex", width, height: 11, background: "var(--age-0)", verticalAlign: "-1px" }}
    >
      {whole > 0 &&
        sizes.map((size, i) => (
          <span
            key={i}
            style={{
              width: `${(100 * size) / whole}%`,
              background: `var(--age-${Math.min(i, 4)})`,
              borderLeft: i > 0 && size > 0 ? "1px solid var(--sheet)" : undefined,
            }}
          />
        ))}
    </span>
  );
}
