import { useQuery } from "@tanstack/react-query";
import { Alert } from "antd";
import type { Schemas } from "../../shared/api/client";
import { count, day, figure, money } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { WorkBar } from "../../shared/WorkBar";
import { useWork } from "./useWork";
import { served } from "../../shared/served";
import styles from "./Changes.module.css";

type ChangesView = Schemas["ChangesView"];

const words: Record<Schemas["ItemChange"], string> = {
  new: "new",
  altered: "altered",
  settled: "settled",
  gone: "gone",
};

/** What a newer file changes, before it is kept: in sums, by customer, and item by item. */
export function Changes({ intake, stamp }: { intake: number; stamp: number }) {
  const book = useBookId();
  const { moment } = useClock();
  const { start, stop, progress } = useWork();
  const changes = useQuery({
    queryKey: ["changes", book, intake, stamp],
    queryFn: ({ signal }) => start<ChangesView>("GET", served(`/api/books/${book}/intakes/${intake}/changes`), signal),
    retry: false,
    staleTime: Infinity,
  });
  if (changes.error) {
    return <Alert className="around-16" type="info" title={changes.error.message} />;
  }
  if (!changes.data) {
    return <WorkBar progress={progress} onStop={stop} />;
  }
  const c = changes.data;
  return (
    <div className={styles.changes} tabIndex={0} role="region" aria-label="What changes">
      <p className="above-0">
        Against {c.before}, kept {moment(c.beforeKeptAt)}: <strong>{count(c.count, "item")} changed</strong>,{" "}
        {c.unchanged.toLocaleString("en-GB")} the same.
      </p>
      <table className="ledger sheet">
        <thead>
          <tr>
            <th scope="col">Items</th>
            <th scope="col" className="figure">
              Number
            </th>
            <th scope="col" className="figure">
              Before
            </th>
            <th scope="col" className="figure">
              Now
            </th>
          </tr>
        </thead>
        <tbody>
          {c.sums.map((s) => (
            <tr key={s.currency + s.change}>
              <td>
                {words[s.change]}, {s.currency}
              </td>
              <td className="figure">{s.items.toLocaleString("en-GB")}</td>
              <td className="figure">{figure(s.before)}</td>
              <td className="figure">{figure(s.after)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>By customer</h2>
      <table className="ledger sheet">
        <thead>
          <tr>
            <th scope="col">Customer</th>
            <th scope="col" className="figure">
              New
            </th>
            <th scope="col" className="figure">
              Altered
            </th>
            <th scope="col" className="figure">
              Settled
            </th>
            <th scope="col" className="figure">
              Gone
            </th>
            <th scope="col" className="figure">
              Owed before
            </th>
            <th scope="col" className="figure">
              Owed now
            </th>
          </tr>
        </thead>
        <tbody>
          {c.customers.map((x) => (
            <tr key={x.customer + x.currency}>
              <td>{x.customer}</td>
              <td className="figure">{x.new || ""}</td>
              <td className="figure">{x.altered || ""}</td>
              <td className="figure">{x.settled || ""}</td>
              <td className="figure">{x.gone || ""}</td>
              <td className="figure">{money(x.before, x.currency)}</td>
              <td className="figure">{money(x.after, x.currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {c.customerCount > c.customers.length && (
        <p className="quiet">
          The {c.customers.length} with the largest differences of {c.customerCount}.
        </p>
      )}
      <h2>Item by item</h2>
      <table className="ledger sheet">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Customer</th>
            <th scope="col">Number</th>
            <th scope="col">Date</th>
            <th scope="col">Due</th>
            <th scope="col" className="figure">
              Open before
            </th>
            <th scope="col" className="figure">
              Open now
            </th>
          </tr>
        </thead>
        <tbody>
          {c.items.map((i, n) => (
            <tr key={n}>
              <td>{words[i.change]}</td>
              <td>{i.name ? `${i.customer} ${i.name}` : i.customer}</td>
              <td>{i.number || i.kind}</td>
              <td>{both(dated(i.before?.date), dated(i.after?.date))}</td>
              <td>{both(dated(i.before?.due), dated(i.after?.due))}</td>
              <td className="figure">{i.before ? money(i.before.open, i.currency) : ""}</td>
              <td className="figure">{i.after ? money(i.after.open, i.currency) : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {c.count > c.items.length && (
        <p className="quiet">
          The first {c.items.length} of {c.count}.
        </p>
      )}
    </div>
  );
}

function dated(iso: string | null | undefined): string {
  return iso ? day(iso) : "";
}

function both(before: string, after: string): string {
  return before && after && before !== after ? `${before} → ${after}` : after || before;
}
