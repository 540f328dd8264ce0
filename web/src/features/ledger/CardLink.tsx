import { Link } from "react-router";
import { useBookId } from "../../shared/useBook";
import type { Finding } from "./findings";

const onCards = ["missing-address", "bad-address"];

/** Leads from a finding about an address to the card on which it can be given. */
export function CardLink({ finding }: { finding: Finding }) {
  const book = useBookId();
  return onCards.includes(finding.code) && finding.customer ? (
    <Link to={`/books/${book}/customers?card=${encodeURIComponent(finding.customer)}`}>Open the card</Link>
  ) : null;
}
