import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Input, Select } from "antd";
import { useState } from "react";
import { count } from "../../shared/figure";
import { DayField } from "../../shared/DayField";
import { Shape } from "../../shared/Shape";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { useKeys } from "../../shared/useKeys";
import { Waiting } from "../../shared/Waiting";
import { MessagePane } from "./MessagePane";
import { Repeat } from "./Repeat";
import { StatementPages } from "../rounds/StatementPages";
import { Notes } from "./Notes";
import { TakeReturned } from "./TakeReturned";
import type { Schemas } from "../../shared/api/client";
import { served } from "../../shared/served";
import styles from "./DispatchPage.module.css";
import { dispatchLog, releasedRounds } from "./api";

/** Each outcome with its words and its sign. */
const outcomes: Record<NonNullable<Schemas["OutcomeKind"]>, { status: string; words: string }> = {
  accepted: { status: "sent", words: "accepted" },
  "try-later": { status: "to-be-retried", words: "to be tried again" },
  refused: { status: "refused", words: "refused" },
  unanswered: { status: "unsure", words: "no answer" },
  unreachable: { status: "to-be-retried", words: "server away" },
  "sign-in-refused": { status: "refused", words: "sign-in refused" },
  exported: { status: "exported", words: "exported" },
  printed: { status: "printed", words: "printed" },
  stopped: { status: "to-be-retried", words: "broken off" },
};

/** Whether an entry is of what went by post: no message, so no Message-ID. */
const isLetter = (e: { messageId: string }) => e.messageId === "";

const gaveUp = { status: "refused", words: "given up" };

const underWay = { status: "sending", words: "under way" };

const cameBack = { status: "returned", words: "came back" };

const addressOf = (query: Record<string, string | number>) =>
  new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString();

/** The record of what went out: each try with the server's words, and exactly what was sent. */
export function DispatchPage() {
  const book = useBookId();
  const { moment } = useClock();
  const [search, setSearch] = useState("");
  const [outcome, setOutcome] = useState("");
  const [round, setRound] = useState<number>();
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const query = {
    ...(search && { search }),
    ...(outcome && { outcome }),
    ...(round && { round }),
    ...(from && { from }),
    ...(to && { to }),
  };
  const [picked, setPicked] = useState<number>();
  const log = useQuery({
    queryKey: ["dispatch", book, query],
    queryFn: () => dispatchLog(book, query),
    placeholderData: keepPreviousData,
  });
  const rounds = useQuery({
    queryKey: ["rounds", book, "released"],
    queryFn: () => releasedRounds(book),
  });
  const entries = log.data ?? [];
  const shown = entries.find((e) => e.id === picked) ?? entries[0];
  const step = (by: number) => {
    const at = entries.findIndex((e) => e.id === shown?.id);
    setPicked(entries[Math.min(entries.length - 1, Math.max(0, at + by))]?.id);
  };
  useKeys({ j: () => step(1), k: () => step(-1) });
  return (
    <div className="split">
      <div className="page-head">
        <h1>Dispatch log</h1>
        <Input
          className="width-150"
          size="small"
          allowClear
          aria-label="Search the log"
          placeholder="Search"
          title="Customer, address, number, subject, Message-ID or answer"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
        <Select
          className="width-116"
          size="small"
          aria-label="Outcome"
          popupMatchSelectWidth={false}
          listHeight={360}
          value={outcome}
          options={[
            { value: "", label: "any outcome" },
            ...Object.entries(outcomes).map(([value, e]) => ({ value, label: e.words })),
            { value: "returned", label: "came back" },
          ]}
          onChange={setOutcome}
        />
        <Select
          className="width-116"
          size="small"
          aria-label="Round"
          popupMatchSelectWidth={false}
          value={round ?? 0}
          showSearch={{ optionFilterProp: "label" }}
          options={[
            { value: 0, label: "any round" },
            ...(rounds.data ?? []).map((r) => ({ value: r.id, label: r.name })),
          ]}
          onChange={(id) => setRound(id || undefined)}
        />
        <span className={styles.logDays}>
          <DayField size="small" label="Sent from" placeholder="from" value={from} onChange={setFrom} />
          <DayField size="small" label="Sent until" placeholder="until" value={to} onChange={setTo} />
          {(from || to) && (
            <button
              type="button"
              className="link"
              onClick={() => {
                setFrom("");
                setTo("");
              }}
            >
              any day
            </button>
          )}
        </span>
        <span className="quiet" role="status">
          {entries.length === 500 ? "the newest 500" : count(entries.length, "entry", "entries")}
        </span>
        <span className="push">
          Save as{" "}
          <a aria-label="Save as CSV" href={served(`/api/books/${book}/dispatch/log.csv?${addressOf(query)}`)}>
            CSV
          </a>
          ,{" "}
          <a aria-label="Save as XLSX" href={served(`/api/books/${book}/dispatch/log.xlsx?${addressOf(query)}`)}>
            XLSX
          </a>
        </span>
        <TakeReturned />
      </div>
      <div className="split-list" tabIndex={0} role="region" aria-label="Entries">
        <Waiting query={log}>
          {(list) =>
            list.length === 0 ? (
              <p className="quiet inside-18">
                {Object.keys(query).length > 0 ? "Nothing that went out is like that." : "Nothing went out yet."}
              </p>
            ) : (
              <table className="ledger">
                <thead>
                  <tr>
                    <th scope="col">Time</th>
                    <th scope="col">Customer</th>
                    <th scope="col">To</th>
                    <th scope="col">Outcome</th>
                  </tr>
                </thead>
                <tbody>
                  {list.map((e) => {
                    const told = e.cameBack ? cameBack : e.gaveUp ? gaveUp : e.outcome ? outcomes[e.outcome] : underWay;
                    return (
                      <tr
                        key={e.id}
                        className="pick"
                        aria-selected={e.id === shown?.id}
                        onClick={() => setPicked(e.id)}
                      >
                        <td className="nowrap">{moment(e.startedAt)}</td>
                        <td>
                          <button type="button" className="link" onClick={() => setPicked(e.id)}>
                            {e.customerName}
                          </button>
                        </td>
                        <td className="cut share-34" title={e.recipients.join("; ")}>
                          {e.recipients.join("; ")}
                        </td>
                        <td className="nowrap" title={e.answer}>
                          <Shape status={told.status} label={false} /> {told.words}
                          {(e.refused ?? 0) > 0 && `, ${e.refused} of ${e.answers.length} recipients refused`}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            )
          }
        </Waiting>
      </div>
      <div className="split-pane" tabIndex={0} role="region" aria-label="The message as sent">
        {shown && (
          <>
            <p className="only-below-8">
              {isLetter(shown) ? (
                <>
                  <span className="quiet">By post to </span>
                  {shown.recipients.join("; ")}
                </>
              ) : (
                <>
                  <span className="quiet">The server said </span>
                  {shown.answer || "nothing yet"}
                </>
              )}
              <br />
              <span className="quiet">Round </span>
              {shown.roundName}
              {shown.isRepeat && " (a repeat)"}
              {shown.isRehearsal && " (a rehearsal)"}{" "}
              <span className="quiet">· {isLetter(shown) ? "Document" : "Message-ID"} </span>
              <span className="wrap-anywhere">{isLetter(shown) ? shown.subject : shown.messageId}</span>
              <br />
              <span className="quiet wrap-anywhere">SHA-256 {shown.sha256}</span>
            </p>
            {!shown.isRehearsal && (
              <Repeat key={`repeat ${shown.parcel}`} parcel={shown.parcel} customer={shown.customerName} />
            )}
            <Notes key={`notes ${shown.parcel}`} parcel={shown.parcel} />
            {isLetter(shown) ? (
              <StatementPages
                key={`paper ${shown.parcel}`}
                address={served(`/api/books/${book}/dispatch/${shown.parcel}/letter`)}
                name={shown.subject}
                version={shown.sha256}
              />
            ) : (
              <MessagePane
                key={`${shown.parcel} ${shown.message}`}
                base={served(`/api/books/${book}/dispatch/${shown.parcel}/messages/${shown.message}`)}
              />
            )}
          </>
        )}
      </div>
    </div>
  );
}
