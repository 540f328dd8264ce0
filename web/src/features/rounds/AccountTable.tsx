import { Fragment, useState } from "react";
import { Link } from "react-router";
import { day, figure, money } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { ItemDialog } from "./ItemDialog";
import { SettleDialog } from "./SettleDialog";
import { useAccount, useAccountActions, type Account, type AccountItem } from "./useAccount";
import type { Round } from "./useRound";
import { reasonWords, settledWords } from "./words";
import styles from "./AccountTable.module.css";

/** Where each item of a customer ends, from which row it was read, what settled it, and what may be decided about it. */
export function AccountTable({ round, customer }: { round: Round; customer: string }) {
  const account = useAccount(round, customer);
  return <Waiting query={account}>{(a) => <Items round={round} account={a} />}</Waiting>;
}

function Items({ round, account }: { round: Round; account: Account }) {
  const book = useBookId();
  const { moment } = useClock();
  const actions = useAccountActions(round);
  const [deciding, setDeciding] = useState<AccountItem>();
  const [settling, setSettling] = useState<AccountItem>();
  const currencies = [...new Set(account.items.map((i) => i.currency))];
  const one = currencies.length === 1 ? currencies[0] : undefined;
  const groups: [string, AccountItem[]][] = [
    ["On the statement", account.items.filter((i) => i.reason === "")],
    ["Left out of it", account.items.filter((i) => i.reason !== "" && i.reason !== "settled")],
    ["Settled", account.items.filter((i) => i.reason === "settled")],
  ];
  const row = (number: number) => (
    <Link to={`/books/${book}/ledger/${round.intakeId}?row=${number}`} title={round.file}>
      row {number}
    </Link>
  );
  return (
    <>
      <table className={`${styles.account} ledger`} aria-label={`Items of ${account.name}`}>
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">Dated</th>
            <th scope="col">Due</th>
            <th scope="col" className="figure">
              Amount
            </th>
            <th scope="col" className="figure">
              Open {one}
            </th>
            <th scope="col">Read from</th>
            <th scope="col">
              <span className="visually-hidden">Decide</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {groups
            .filter(([, items]) => items.length > 0)
            .map(([title, items]) => (
              <Fragment key={title}>
                <tr className={styles.accountGroup}>
                  <th scope="rowgroup" colSpan={7}>
                    {title}
                  </th>
                </tr>
                {items.map((item, i) => (
                  <Fragment key={`${item.key} ${i}`}>
                    <tr>
                      <td title={item.kind}>{item.name}</td>
                      <td>{item.date && day(item.date)}</td>
                      <td>{day(item.due)}</td>
                      <td className="figure">{figure(item.original)}</td>
                      <td className="figure">{one ? figure(item.open) : money(item.open, item.currency)}</td>
                      <td>{row(item.row)}</td>
                      <td className={styles.accountActs}>
                        {!account.isFixed && (
                          <Acts
                            item={item}
                            customer={account.customer}
                            actions={actions}
                            onDecide={() => setDeciding(item)}
                            onSettle={() => setSettling(item)}
                          />
                        )}
                      </td>
                    </tr>
                    {item.corrections.map((c, at) => (
                      <tr className={styles.accountNote} key={at}>
                        <td colSpan={7}>
                          {c.column ? `${c.column} corrected: the file says` : "Customer joined: the file says"}{" "}
                          {c.was ? `“${c.was}”` : "nothing"}, here it is “{c.becomes}” · {c.by}, {moment(c.at)}
                        </td>
                      </tr>
                    ))}
                    {(item.note || item.remindedOn || (item.reason && item.reason !== "settled")) && (
                      <tr className={styles.accountNote}>
                        <td colSpan={7}>
                          {[
                            item.reason && item.reason !== "settled" ? reasonWords[item.reason] : "",
                            item.note && `“${item.note}”`,
                            item.remindedOn && `reminder ${item.reminderLevel} sent on ${day(item.remindedOn)}`,
                            item.until && `comes up again on ${day(item.until)}`,
                          ]
                            .filter(Boolean)
                            .join(" · ")}
                        </td>
                      </tr>
                    )}
                  </Fragment>
                ))}
              </Fragment>
            ))}
        </tbody>
      </table>
      {account.settlings.length > 0 && (
        <table className={`${styles.account} ledger`} aria-label="What payments settled">
          <thead>
            <tr>
              <th scope="col">Payment or credit</th>
              <th scope="col">Set against</th>
              <th scope="col" className="figure">
                Amount
              </th>
              <th scope="col">Because</th>
            </tr>
          </thead>
          <tbody>
            {account.settlings.map((s, i) => (
              <tr key={i}>
                <td>
                  {s.credit}, {row(s.creditRow)}
                </td>
                <td>
                  {s.charge}, {row(s.chargeRow)}
                </td>
                <td className="figure">{money(s.amount, s.currency)}</td>
                <td>{settledWords[s.by]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {account.said.length > 0 && (
        <ul className={styles.accountSaid} aria-label="Set by hand">
          {account.said.map((s) => (
            <li key={s.id}>
              {s.credit || "a payment that is in the ledger no more"}{" "}
              {s.charge === null
                ? "is kept as a credit"
                : `is set against ${s.charge || "an item that is in the ledger no more"}`}
              {s.amount !== null && `, ${figure(s.amount)}`}: {s.by}, {moment(s.at)}{" "}
              {!account.isFixed && (
                <button type="button" className="link" onClick={() => actions.takeBack.mutate(s.id)}>
                  take back
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {deciding && (
        <ItemDialog
          item={deciding}
          customer={account.customer}
          actions={actions}
          onClose={() => setDeciding(undefined)}
        />
      )}
      {settling && (
        <SettleDialog credit={settling} account={account} actions={actions} onClose={() => setSettling(undefined)} />
      )}
    </>
  );
}

function Acts({
  item,
  customer,
  actions,
  onDecide,
  onSettle,
}: {
  item: AccountItem;
  customer: string;
  actions: ReturnType<typeof useAccountActions>;
  onDecide: () => void;
  onSettle: () => void;
}) {
  const isCredit = Number(item.original) < 0;
  return (
    <>
      {item.isDecided ? (
        <button
          type="button"
          className="link"
          onClick={() => actions.decide.mutate({ customer, item: item.key, decision: null, reason: "" })}
        >
          take back<span className="visually-hidden"> {item.name}</span>
        </button>
      ) : item.isHeld ? (
        <button type="button" className="link" onClick={() => actions.endHold.mutate(item.key)}>
          end hold<span className="visually-hidden"> {item.name}</span>
        </button>
      ) : item.reason === "settled" || item.reason === "after-the-date" ? null : (
        <button type="button" className="link" onClick={onDecide}>
          {item.reason === "" ? "leave out…" : "put in…"}
          <span className="visually-hidden"> {item.name}</span>
        </button>
      )}
      {isCredit && (
        <button type="button" className="link" onClick={onSettle}>
          set…<span className="visually-hidden"> {item.name}</span>
        </button>
      )}
    </>
  );
}
