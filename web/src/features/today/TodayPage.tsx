import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { Link, useNavigate } from "react-router";
import { AgeBar } from "../../shared/AgeBar";

import { count, day, money } from "../../shared/figure";
import { useBook, useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { countOf, type Group } from "../rounds/listRows";
import { Waiting } from "../../shared/Waiting";
import { UnclearReturned, useUnclear } from "../dispatch/UnclearReturned";
import { useLedger } from "../ledger/useLedger";
import { WorthALook } from "./WorthALook";
import { waitingRounds } from "../rounds/api";

/** What there is, what waits, and what to do first. */
export function TodayPage() {
  const book = useBookId();
  const { moment } = useClock();
  const details = useBook();
  const navigate = useNavigate();
  const ledger = useLedger();
  const unclear = useUnclear().data ?? [];
  const rounds = useQuery({
    queryKey: ["rounds", book, "waiting"],
    queryFn: () => waitingRounds(book),
  });
  return (
    <div className="page">
      <div className="page-head">
        <h1>{details.data?.name}</h1>
        <span className="quiet">{details.data && day(details.data.today)}</span>
      </div>
      <Waiting query={ledger}>
        {({ ledger: now }) =>
          now === null ? (
            <section className="sheet inside-20 at-most-620">
              <h2>First, take in the ledger</h2>
              <p>
                Get a file of the open items out of your accounting program and take it in as it is. Nothing is kept
                before you have looked at it.
              </p>
              <Button type="primary" onClick={() => void navigate(`/books/${book}/ledger`)}>
                Take in a file
              </Button>
            </section>
          ) : (
            <section className="at-most-900">
              <h2>Owed to us</h2>
              <p className="quiet under-heading">
                {count(now.customers, "customer")}, {count(now.rows, "row")} from{" "}
                <Link to={`/books/${book}/ledger`}>{now.file}</Link>, kept {moment(now.keptAt)}
              </p>
              <table className="ledger sheet">
                <thead>
                  <tr>
                    <th scope="col">Currency</th>
                    <th scope="col" className="figure">
                      Open
                    </th>
                    <th scope="col" className="figure">
                      Past due
                    </th>
                    <th scope="col">Age</th>
                    {details.data?.ageLabels.map((label) => (
                      <th scope="col" key={label} className="figure">
                        {label}
                      </th>
                    ))}
                    <th scope="col" className="figure">
                      credits
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {now.sums.map((s) => (
                    <tr key={s.currency}>
                      <td>{s.currency}</td>
                      <td className="figure">
                        <strong>{money(s.total, s.currency)}</strong>
                      </td>
                      <td className="figure">{money(s.overdue, s.currency)}</td>
                      <td>
                        <AgeBar bands={s.bands} labels={details.data?.ageLabels ?? []} width={120} />
                      </td>
                      {s.bands.map((b, i) => (
                        <td key={i} className="figure">
                          {money(b, s.currency)}
                        </td>
                      ))}
                      <td className="figure">{money(s.credits, s.currency)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )
        }
      </Waiting>
      <section className="at-most-900 above-22">
        <div className="page-head below-6">
          <h2>Rounds that wait</h2>
          <Link className="push" to={`/books/${book}/rounds`}>
            All rounds
          </Link>
        </div>
        <Waiting query={rounds}>
          {(waiting) =>
            waiting.length === 0 ? (
              <p className="quiet">
                Nothing waits. <Link to={`/books/${book}/rounds`}>Prepare a round</Link> to write to the customers who
                owe.
              </p>
            ) : (
              <table className="ledger sheet">
                <tbody>
                  {waiting.map((r) => (
                    <tr key={r.id}>
                      <td>
                        <Link to={`/books/${book}/rounds/${r.id}`}>{r.name}</Link>
                      </td>
                      <td>as of {day(r.asOf)}</td>
                      <td>{count(countOf(r.groups, "prepared"), "parcel")} ready</td>
                      <td>{some(r, "needs-you", "need you")}</td>
                      <td>{some(r, "unsure", "unsure")}</td>
                      <td>{r.requestedBy && `${r.requestedBy} asks for its release`}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )
          }
        </Waiting>
      </section>
      {unclear.length > 0 && (
        <section className="at-most-900 above-22" aria-label="Unclear mail">
          <h2 className="below-6">Mail that may be about a failed delivery</h2>
          <UnclearReturned messages={unclear} />
        </section>
      )}
      <WorthALook />
    </div>
  );
}

/** "3 unsure"; empty for none. */
function some({ groups }: { groups: Group[] }, status: string, words: string): string {
  const many = countOf(groups, status);
  return many > 0 ? `${many} ${words}` : "";
}
