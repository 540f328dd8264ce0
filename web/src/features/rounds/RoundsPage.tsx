import { useInfiniteQuery } from "@tanstack/react-query";
import { Alert, Button, Input, Select } from "antd";
import { Fragment, useState } from "react";
import { Link } from "react-router";

import { DayField } from "../../shared/DayField";
import { day, money, month } from "../../shared/figure";
import { Shape, statusOf } from "../../shared/Shape";
import { useBook, useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import type { Schemas } from "../../shared/api/client";
import { useMakeRound } from "./useMakeRound";
import { kinds, kindWords, type Kind } from "./words";
import styles from "./RoundsPage.module.css";
import { roundList } from "./api";

type Line = Schemas["RoundLine"];

/** The rounds by month, the newest first, and the place to begin one. */
export function RoundsPage() {
  const book = useBookId();
  const [copied, setCopied] = useState<Line>();
  const [about, setAbout] = useState<Kind>();
  const rounds = useInfiniteQuery({
    queryKey: ["rounds", book, "list", about],
    queryFn: ({ pageParam }) => roundList(book, pageParam, about),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.hasMore ? last.rounds.at(-1)?.id : undefined),
    select: (data) => data.pages.flatMap((part) => part.rounds),
  });
  return (
    <div className="page">
      <div className="page-head">
        <h1>Rounds</h1>
        <Select<Kind | "all">
          size="small"
          aria-label="Rounds about"
          popupMatchSelectWidth={false}
          value={about ?? "all"}
          options={[{ value: "all", label: "all purposes" }, ...kinds]}
          onChange={(value) => setAbout(value === "all" ? undefined : value)}
        />
        <NewRound key={copied?.id} copied={copied} onNoCopy={() => setCopied(undefined)} />
      </div>
      <Waiting query={rounds}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet">
              {about
                ? "None about this yet."
                : "None yet. A round prepares a message with its statement for every customer who owes something; nothing leaves before you release it."}
            </p>
          ) : (
            <Rounds list={list} onCopy={setCopied} />
          )
        }
      </Waiting>
      {rounds.hasNextPage && (
        <Button className="above-10" loading={rounds.isFetchingNextPage} onClick={() => void rounds.fetchNextPage()}>
          Show older rounds
        </Button>
      )}
    </div>
  );
}

/** Begins a round, or one like an earlier one with the days moved along. */
function NewRound({ copied, onNoCopy }: { copied: Line | undefined; onNoCopy: () => void }) {
  const details = useBook();
  const [name, setName] = useState("");
  const [asOf, setAsOf] = useState("");
  const [about, setAbout] = useState<Kind>("statements");
  const date = asOf || details.data?.today || "";
  const kind = copied ? copied.about : about;
  const usual = `${kindWords[kind as Kind]} at ${day(date)}`;
  const making = useMakeRound();
  return (
    <form
      className={`${styles.making} push`}
      onSubmit={(e) => {
        e.preventDefault();
        making.mutate({ name: name.trim() || usual, asOf: date, about: kind, copyOf: copied?.id ?? null });
      }}
    >
      {copied ? (
        <span className={styles.copied}>
          like {copied.name}{" "}
          <Button size="small" type="text" aria-label="Not as a copy" onClick={onNoCopy}>
            ✕
          </Button>
        </span>
      ) : (
        <Select
          aria-label="What goes"
          value={about}
          popupMatchSelectWidth={false}
          options={kinds}
          onChange={setAbout}
        />
      )}
      <Input
        className="width-230"
        aria-label="Name of the new round"
        placeholder={date && usual}
        value={name}
        onChange={(e) => setName(e.target.value)}
        autoFocus={copied !== undefined}
      />
      <DayField label="As of" value={date} onChange={setAsOf} />
      <Button type="primary" htmlType="submit" loading={making.isPending}>
        Prepare a round
      </Button>
      {making.error && <Alert type="error" title={making.error.message} />}
    </form>
  );
}

function Rounds({ list, onCopy }: { list: Line[]; onCopy: (round: Line) => void }) {
  const book = useBookId();
  const { moment } = useClock();
  return (
    <table className="ledger sheet">
      <thead>
        <tr>
          <th scope="col">Round</th>
          <th scope="col">Purpose</th>
          <th scope="col">As of</th>
          <th scope="col">Parcels</th>
          <th scope="col" className="figure">
            Sum
          </th>
          <th scope="col">Made</th>
          <th scope="col">Released</th>
          <th scope="col">
            <span className="visually-hidden">Copy</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {list.map((round, i) => (
          <Fragment key={round.id}>
            {month(round.asOf) !== month(list[i - 1]?.asOf ?? "") && (
              <tr className={styles.month}>
                <th colSpan={8} scope="rowgroup">
                  {month(round.asOf)}
                </th>
              </tr>
            )}
            <tr className="pick">
              <td>
                <Link to={`/books/${book}/rounds/${round.id}`}>{round.name}</Link>
              </td>
              <td>{kindWords[round.about as Kind]}</td>
              <td>{day(round.asOf)}</td>
              <td>
                {round.groups.map(({ status, count }) => (
                  <span key={status} className={styles.status}>
                    <Shape status={status} label={false} /> {count} {statusOf(count, status)}
                  </span>
                ))}
              </td>
              <td className="figure">{round.totals.map((t) => money(t.amount, t.currency)).join(" · ")}</td>
              <td>
                {moment(round.madeAt)}, {round.madeBy}
              </td>
              <td>
                {round.releasedAt ? (
                  `${moment(round.releasedAt)}, ${round.releasedBy}`
                ) : (
                  <span className="quiet">{round.requestedBy ? `asked for by ${round.requestedBy}` : "not yet"}</span>
                )}
              </td>
              <td>
                <Button size="small" aria-label={`Copy ${round.name}`} onClick={() => onCopy(round)}>
                  Copy
                </Button>
              </td>
            </tr>
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}
