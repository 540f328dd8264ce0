import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { AgeBar } from "../../shared/AgeBar";
import type { Schemas } from "../../shared/api/client";
import { count, day, figure, money } from "../../shared/figure";
import { useBook, useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { useMakeRound } from "../rounds/useMakeRound";
import styles from "./WorthALook.module.css";
import { todayIn } from "./api";
import { endItemHold } from "../rounds/api";

type Today = Schemas["TodayView"];

/** Who owes most that is past due, who was not written to this month, and which items are held back. */
export function WorthALook() {
  const book = useBookId();
  const [currency, setCurrency] = useState<string>();
  const today = useQuery({
    queryKey: ["today", book, currency],
    queryFn: async () => ({
      today: (await todayIn(book, currency)) ?? null,
    }),
    placeholderData: (before) => before,
  });
  return <Waiting query={today}>{({ today: now }) => now && <Lists now={now} onCurrency={setCurrency} />}</Waiting>;
}

function Lists({ now, onCurrency }: { now: Today; onCurrency: (currency: string) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <div className={styles.todayLists}>
      <section aria-label="Largest overdue">
        <div className="page-head">
          <h2>Most past due, {now.currency}</h2>
          {now.currencies.length > 1 && (
            <span className="currency-switch push" role="group" aria-label="Currency">
              {now.currencies.map((c) => (
                <button key={c} type="button" aria-pressed={c === now.currency} onClick={() => onCurrency(c)}>
                  {c}
                </button>
              ))}
            </span>
          )}
        </div>
        {now.largest.length === 0 ? (
          <p className="quiet">Nothing is past due.</p>
        ) : (
          <Owed lines={now.largest} isOverdue />
        )}
      </section>
      <section aria-label="What is to be done">
        <Reminders now={now} />
        <div className="page-head">
          <h2>Not written to since {day(now.since)}</h2>
        </div>
        {now.notWrittenCount === 0 ? (
          <p className="quiet">Everybody who owes in {now.currency} was sent something this month.</p>
        ) : (
          <p>
            {count(now.notWrittenCount, "customer")} who {now.notWrittenCount === 1 ? "owes" : "owe"}{" "}
            <strong>{money(now.notWrittenSum, now.currency)}</strong>{" "}
            <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? "hide them" : "who"}
            </button>
          </p>
        )}
        {open && <Owed lines={now.notWritten} isOverdue={false} />}
        {open && now.notWritten.length < now.notWrittenCount && (
          <p className="quiet">The {now.notWritten.length} who owe most are listed.</p>
        )}
        <Held held={now.held} />
      </section>
    </div>
  );
}

/** To how many which reminder is due, and the way to the round that sends them. */
function Reminders({ now }: { now: Today }) {
  const details = useBook();
  const { message } = App.useApp();
  const today = details.data?.today ?? "";
  const making = useMakeRound();
  const prepare = () =>
    making.mutate(
      { name: `Reminders at ${day(today)}`, asOf: today, about: "reminders" },
      { onError: (e) => void message.error(e.message) },
    );
  return (
    <>
      <div className="page-head">
        <h2>Reminders due</h2>
        {now.reminders.length > 0 && (
          <button type="button" className="link push" disabled={!today || making.isPending} onClick={prepare}>
            prepare them
          </button>
        )}
      </div>
      {now.reminders.length === 0 ? (
        <p className="quiet">None in {now.currency}.</p>
      ) : (
        <table className="ledger sheet" aria-label="Reminders due">
          <tbody>
            {now.reminders.map((r) => (
              <tr key={r.level}>
                <td>level {r.level}</td>
                <td>{count(r.customers, "customer")}</td>
                <td className="figure">{money(r.overdue, now.currency)} past due</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Owed({ lines, isOverdue }: { lines: Today["largest"]; isOverdue: boolean }) {
  const book = useBookId();
  const details = useBook();
  return (
    <table className="ledger sheet">
      <thead>
        <tr>
          <th scope="col">Customer</th>
          <th scope="col" className="figure">
            {isOverdue ? "Past due" : "Open"}
          </th>
          <th scope="col">Age</th>
          <th scope="col" className="figure">
            Oldest, days
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={l.customer}>
            <td>
              <Link to={`/books/${book}/customers?card=${encodeURIComponent(l.customer)}`}>{l.name}</Link>
            </td>
            <td className="figure">{figure(isOverdue ? l.overdue : l.total)}</td>
            <td>
              <AgeBar bands={l.bands} labels={details.data?.ageLabels ?? []} />
            </td>
            <td className="figure">{l.oldestDays || ""}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Held({ held }: { held: Today["held"] }) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const end = useMutation({
    mutationFn: (item: string) => endItemHold(book, { item }),
    onSuccess: () => client.invalidateQueries({ queryKey: ["today", book] }),
    onError: (e) => message.error(e.message),
  });
  return (
    <>
      <div className="page-head above-18">
        <h2>Items held back</h2>
      </div>
      {held.length === 0 ? (
        <p className="quiet">None. An item is held back under “Where from” in a round.</p>
      ) : (
        <table className="ledger sheet" aria-label="Items held back">
          <tbody>
            {held.map((h) => (
              <tr key={h.item}>
                <td>
                  <Link to={`/books/${book}/customers?card=${encodeURIComponent(h.customer)}`}>{h.name}</Link>
                </td>
                <td>{h.itemName}</td>
                <td title={`${h.by}, ${h.at}`}>“{h.note}”</td>
                <td className={h.isUp ? styles.waits : undefined}>
                  {h.until === null ? "until somebody says so" : h.isUp ? "is in again" : `until ${day(h.until)}`}
                </td>
                <td>
                  <button type="button" className="link" onClick={() => end.mutate(h.item)}>
                    {h.isUp ? "seen" : "end hold"}
                    <span className="visually-hidden"> {h.itemName}</span>
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
