import { Link } from "react-router";
import { count, day, money } from "../../shared/figure";
import { Shape, statusWords } from "../../shared/Shape";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { useHistory } from "./useHistory";

const returnedWords: Record<string, string> = {
  failed: "not delivered",
  delayed: "delayed",
  "automatic-reply": "automatic reply",
  "own-copy": "own copy not delivered",
  unclear: "unclear",
  other: "answer",
};

/** What a customer was asked for and when, and what it owed at each ledger that was kept. */
export function CustomerHistory({ customer }: { customer: string }) {
  const book = useBookId();
  const { dayOf, moment } = useClock();
  const history = useHistory(customer);
  return (
    <Waiting query={history}>
      {(h) => (
        <section className="above-22" aria-label="What was">
          <h2>Statements sent</h2>
          {h.claims.length === 0 ? (
            <p className="quiet">None yet.</p>
          ) : (
            <table className="ledger" aria-label="Statements sent">
              <tbody>
                {h.claims.map((c) => (
                  <tr key={c.round}>
                    <td>
                      <Shape status={c.state} label={false} /> {statusWords[c.state]}
                    </td>
                    <td>
                      <Link to={`/books/${book}/rounds/${c.round}?customer=${encodeURIComponent(c.to ?? customer)}`}>
                        {c.roundName}
                      </Link>
                      {c.to !== null && `, with ${c.to}`}
                    </td>
                    <td>
                      as of {day(c.asOf)}
                      {c.reminderLevel !== null && `, reminder ${c.reminderLevel}`}
                    </td>
                    <td className="figure">{c.sums.map((s) => money(s.total, s.currency)).join(" · ")}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {h.returned.length > 0 && (
            <>
              <h2 className="above-14">Came back</h2>
              <table className="ledger" aria-label="Came back">
                <tbody>
                  {h.returned.map((r, i) => (
                    <tr key={i}>
                      <td>{dayOf(r.writtenAt)}</td>
                      <td>{returnedWords[r.kind]}</td>
                      <td>
                        <Link to={`/books/${book}/rounds/${r.round}?customer=${encodeURIComponent(customer)}`}>
                          {r.roundName}
                        </Link>
                      </td>
                      <td className="cut share-45" title={r.reason}>
                        {r.reason}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          <h2 className="above-14">Balance at each ledger</h2>
          {h.balances.length === 0 ? (
            <p className="quiet">There is no ledger with this customer in it.</p>
          ) : (
            <table className="ledger" aria-label="Balance at each ledger">
              <tbody>
                {h.balances.map((b) => (
                  <tr key={`${b.intake} ${b.currency}`}>
                    <td>{moment(b.keptAt)}</td>
                    <td>
                      <Link to={`/books/${book}/ledger/${b.intake}`}>{b.file}</Link>
                    </td>
                    <td className="figure">{count(b.items, "item")}</td>
                    <td className="figure">{money(b.balance, b.currency)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </section>
      )}
    </Waiting>
  );
}
