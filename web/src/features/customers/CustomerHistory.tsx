import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button } from "antd";
import { Link } from "react-router";
import { api, must } from "../../shared/api/client";
import { count, day, money, moment } from "../../shared/figure";
import { Shape, standingWords } from "../../shared/Shape";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";

const returnedWords: Record<string, string> = {
  failed: "not delivered",
  delayed: "delayed",
  "automatic-reply": "automatic reply",
  other: "answer",
};

/** What a customer was asked for and when, and what it owed at each ledger that was kept. */
export function CustomerHistory({ customer }: { customer: string }) {
  const book = useBookId();
  const history = useQuery({
    queryKey: ["history", book, customer],
    queryFn: () =>
      must(api.GET("/api/books/{book}/customers/history", { params: { path: { book }, query: { key: customer } } })),
  });
  const client = useQueryClient();
  const goodAgain = useMutation({
    mutationFn: (address: string) =>
      must(
        api.DELETE("/api/books/{book}/customers/returned-address", { params: { path: { book }, query: { address } } }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["history", book, customer] }),
  });
  return (
    <Waiting query={history}>
      {(h) => (
        <section aria-label="What was" style={{ marginTop: 22 }}>
          {h.returnedAddresses.map((a) => (
            <Alert
              key={a.address}
              type="warning"
              style={{ marginBottom: 10 }}
              title={`Mail to ${a.address} came back on ${day(a.since)}: ${a.reason}`}
              action={
                <Button size="small" onClick={() => goodAgain.mutate(a.address)}>
                  It is good again
                </Button>
              }
            />
          ))}
          <h2>Statements sent</h2>
          {h.claims.length === 0 ? (
            <p className="quiet">None yet.</p>
          ) : (
            <table className="ledger" aria-label="Statements sent">
              <tbody>
                {h.claims.map((c) => (
                  <tr key={c.round}>
                    <td>
                      <Shape standing={c.state} label={false} /> {standingWords[c.state]}
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
              <h2 style={{ marginTop: 14 }}>Came back</h2>
              <table className="ledger" aria-label="Came back">
                <tbody>
                  {h.returned.map((r, i) => (
                    <tr key={i}>
                      <td>{day(r.writtenAt)}</td>
                      <td>{returnedWords[r.kind]}</td>
                      <td>
                        <Link to={`/books/${book}/rounds/${r.round}?customer=${encodeURIComponent(customer)}`}>
                          {r.roundName}
                        </Link>
                      </td>
                      <td className="cut" title={r.reason} style={{ width: "45%" }}>
                        {r.reason}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          <h2 style={{ marginTop: 14 }}>Balance at each ledger</h2>
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
