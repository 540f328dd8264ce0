import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

const outcomes: Record<string, string> = {
  returned: "returned: it never reached them",
  delayed: "delayed: the server goes on trying",
  "automatic-reply": "automatic reply, kept in the history",
  "own-copy": "your own copy came back: theirs was delivered",
  unclear: "unclear: open it and decide",
  delivered: "a report of a delivery",
  answer: "an answer, kept in the history",
  "fits-none": "fits nothing that was sent from here",
  known: "taken in before",
};

/** What became of each message that came back. */
export function ReturnedTable({ taken }: { taken: Schemas["TakenReturn"][] }) {
  const book = useBookId();
  return (
    <table className="ledger" aria-label="What came back">
      <tbody>
        {taken.map((t, i) => (
          <tr key={i}>
            <td>
              {t.customer ? (
                <Link to={`/books/${book}/customers?card=${encodeURIComponent(t.customer)}`}>{t.name}</Link>
              ) : (
                t.addresses.join(", ") || t.file
              )}
            </td>
            <td>{outcomes[t.outcome] ?? t.outcome}</td>
            <td className="cut share-45" title={t.reason}>
              {t.reason}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
