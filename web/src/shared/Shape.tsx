import styles from "./Shape.module.css";
/** The words for each status of a parcel, as people see them. */
export const statusWords: Record<string, string> = {
  "needs-you": "needs you",
  prepared: "ready",
  held: "held",
  released: "released",
  sending: "sending",
  sent: "sent",
  "to-be-retried": "to be retried",
  refused: "refused",
  returned: "returned",
  unsure: "unsure",
  exported: "exported",
  printed: "printed",
  "left-out": "left out",
};

/** The words behind a number of parcels: “1 needs you”, “3 need you”. */
export const statusOf = (count: number, status: string): string =>
  status === "needs-you" && count !== 1 ? "need you" : (statusWords[status] ?? status);

const shapes: Record<string, React.ReactNode> = {
  prepared: <rect x="1" y="1" width="10" height="10" fill="var(--accent)" />,
  "needs-you": <path d="M6 0.5 12 11.5H0Z" fill="var(--brass)" stroke="var(--brass-ink)" strokeWidth="0.8" />,
  held: <path d="M1.5 1h3.2v10H1.5zM7.3 1h3.2v10H7.3z" fill="var(--accent)" />,
  "left-out": <circle cx="6" cy="6" r="4.4" fill="none" stroke="var(--ink-2)" strokeWidth="1.6" />,
  released: <rect x="1.8" y="1.8" width="8.4" height="8.4" fill="none" stroke="var(--accent)" strokeWidth="1.6" />,
  sending: (
    <g>
      <rect x="1.8" y="1.8" width="8.4" height="8.4" fill="none" stroke="var(--sent)" strokeWidth="1.6" />
      <rect x="1" y="6" width="10" height="5" fill="var(--sent)" />
    </g>
  ),
  sent: (
    <g>
      <rect x="1" y="1" width="10" height="10" fill="var(--sent)" />
      <path d="m3 6.2 2.2 2.3L9.2 3.8" fill="none" stroke="var(--sheet)" strokeWidth="1.5" />
    </g>
  ),
  "to-be-retried": (
    <g>
      <rect x="1.8" y="1.8" width="8.4" height="8.4" fill="none" stroke="var(--brass-ink)" strokeWidth="1.6" />
      <circle cx="6" cy="6" r="1.8" fill="var(--brass-ink)" />
    </g>
  ),
  exported: (
    <g>
      <rect x="1.8" y="1.8" width="8.4" height="8.4" fill="none" stroke="var(--sent)" strokeWidth="1.6" />
      <path d="M6 3v5M3.6 6 6 8.4 8.4 6" fill="none" stroke="var(--sent)" strokeWidth="1.4" />
    </g>
  ),
  printed: (
    <g>
      <rect x="1.8" y="1.8" width="8.4" height="8.4" fill="none" stroke="var(--sent)" strokeWidth="1.6" />
      <path d="M3.8 4.6h4.4M3.8 7.4h4.4" stroke="var(--sent)" strokeWidth="1.2" />
    </g>
  ),
  refused: <path d="M1.5 1.5l9 9m0-9l-9 9" stroke="var(--rust)" strokeWidth="2.2" />,
  returned: <path d="M11 1v10L1 6Z" fill="var(--rust)" />,
  unsure: (
    <g>
      <path d="M6 .4 11.6 6 6 11.6.4 6Z" fill="none" stroke="var(--rust)" strokeWidth="1.4" />
      <path d="M6 3.4v3.2M6 7.9v1" stroke="var(--rust)" strokeWidth="1.4" />
    </g>
  ),
};

/** A status as a shape; the colour only repeats what the shape says. */
export function Shape({ status, label = true }: { status: string; label?: boolean }) {
  const words = statusWords[status] ?? status;
  return (
    <svg
      width="12"
      height="12"
      viewBox="0 0 12 12"
      role={label ? "img" : undefined}
      aria-label={label ? words : undefined}
      aria-hidden={!label}
      className={styles.shape}
    >
      {label && <title>{words}</title>}
      {shapes[status]}
    </svg>
  );
}
