import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { money } from "../../shared/figure";
import { Shape, statusOf } from "../../shared/Shape";
import styles from "./ProofRail.module.css";

type Proof = Schemas["ProofView"];

/** What has left, what is on its way and what stays comes in the order of the list, what is left out last. */
const barOrder = [
  "sent",
  "exported",
  "printed",
  "sending",
  "released",
  "prepared",
  "to-be-retried",
  "held",
  "needs-you",
  "unsure",
  "refused",
  "returned",
];

/**
 * The whole ledger as one bar, cut into the parcels by status and what is left out by reason, with the sum that
 * closes under it. One currency at a time: amounts of two currencies are never added.
 */
export function ProofRail({ proof, onWhy }: { proof: Proof[]; onWhy: () => void }) {
  const [currency, setCurrency] = useState<string>();
  const shown = proof.find((p) => p.currency === currency) ?? proof[0];
  if (!shown) {
    return null;
  }
  const parts = [...shown.parts].sort((a, b) => place(a.kind) - place(b.kind));
  const statuses = shown.parts.filter((p) => !p.kind.startsWith("left-out:"));
  const closes = Number(shown.difference) === 0;
  return (
    <section className={styles.proof} aria-label={`Proof in ${shown.currency}`}>
      <div className={styles.proofBar} aria-hidden>
        {parts.map((p) => (
          <span
            key={p.kind}
            className={styles[p.kind.startsWith("left-out:") ? "left-out" : p.kind]}
            style={{ flexGrow: p.share }}
          />
        ))}
      </div>
      <div className={styles.proofSum}>
        <span>
          Ledger <strong>{money(shown.ledger, shown.currency)}</strong>
        </span>
        <span aria-hidden>=</span>
        {statuses.map((p) => (
          <span key={p.kind}>
            <Shape status={p.kind} label={false} /> {p.count} {statusOf(p.count, p.kind)}{" "}
            <strong>{money(p.amount, shown.currency)}</strong>
          </span>
        ))}
        {shown.leftOutCount > 0 && (
          <span>
            <Shape status="left-out" label={false} /> {shown.leftOutCount} left out{" "}
            <strong>{money(shown.leftOut, shown.currency)}</strong>{" "}
            <button type="button" className="link" onClick={onWhy}>
              why
            </button>
          </span>
        )}
        <span className={closes ? styles.proofCloses : styles.proofOpen}>
          difference {money(shown.difference, shown.currency)} {closes ? "✓" : "✕"}
        </span>
        {proof.length > 1 && (
          <span className="currency-switch" role="group" aria-label="Currency of the proof">
            {proof.map((p) => (
              <button
                key={p.currency}
                type="button"
                aria-pressed={p.currency === shown.currency}
                onClick={() => setCurrency(p.currency)}
              >
                {p.currency}
              </button>
            ))}
          </span>
        )}
      </div>
    </section>
  );
}

function place(kind: string): number {
  const at = barOrder.indexOf(kind);
  return at < 0 ? barOrder.length : at;
}
