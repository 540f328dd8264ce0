import { useInfiniteQuery } from "@tanstack/react-query";
import { Alert, Button, Input, Select } from "antd";
import { useState } from "react";
import { Link } from "react-router";

import { DayField } from "../../shared/DayField";
import { day } from "../../shared/figure";
import { Shape, statusWords } from "../../shared/Shape";
import { useBook, useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { useMakeRound } from "./useMakeRound";
import { kinds, kindWords, type Kind } from "./words";
import styles from "./RoundsPage.module.css";
import { roundList } from "./api";

/** The rounds, the newest first, and the place to begin one. */
export function RoundsPage() {
  const book = useBookId();
  const { moment } = useClock();
  const details = useBook();
  const [name, setName] = useState("");
  const [asOf, setAsOf] = useState("");
  const [about, setAbout] = useState<Kind>("statements");
  const rounds = useInfiniteQuery({
    queryKey: ["rounds", book, "list"],
    queryFn: ({ pageParam }) => roundList(book, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.hasMore ? last.rounds.at(-1)?.id : undefined),
    select: (data) => data.pages.flatMap((part) => part.rounds),
  });
  const date = asOf || details.data?.today || "";
  const usual = `${kindWords[about]} at ${day(date)}`;
  const making = useMakeRound();
  return (
    <div className="page">
      <div className="page-head">
        <h1>Rounds</h1>
        <form
          className={`${styles.making} push`}
          onSubmit={(e) => {
            e.preventDefault();
            making.mutate({ name: name.trim() || usual, asOf: date, about });
          }}
        >
          <Select
            aria-label="What goes"
            value={about}
            popupMatchSelectWidth={false}
            options={kinds}
            onChange={setAbout}
          />
          <Input
            className="width-230"
            aria-label="Name of the new round"
            placeholder={date && usual}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <DayField label="As of" value={date} onChange={setAsOf} />
          <Button type="primary" htmlType="submit" loading={making.isPending}>
            Prepare a round
          </Button>
        </form>
      </div>
      {making.error && <Alert className="below-10" type="error" title={making.error.message} />}
      <Waiting query={rounds}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet">
              None yet. A round prepares a message with its statement for every customer who owes something; nothing
              leaves before you release it.
            </p>
          ) : (
            <table className="ledger sheet">
              <thead>
                <tr>
                  <th scope="col">Round</th>
                  <th scope="col">As of</th>
                  <th scope="col">Made</th>
                  <th scope="col">Released</th>
                  <th scope="col">Parcels</th>
                </tr>
              </thead>
              <tbody>
                {list.map((round) => (
                  <tr key={round.id} className="pick">
                    <td>
                      <Link to={`/books/${book}/rounds/${round.id}`}>{round.name}</Link>
                    </td>
                    <td>{day(round.asOf)}</td>
                    <td>{moment(round.madeAt)}</td>
                    <td>{round.releasedAt ? moment(round.releasedAt) : <span className="quiet">not yet</span>}</td>
                    <td>
                      {round.groups.map(({ status, count }) => (
                        <span key={status} className={styles.status}>
                          <Shape status={status} label={false} /> {count} {statusWords[status]}
                        </span>
                      ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
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
