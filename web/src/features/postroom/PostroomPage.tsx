import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useState } from "react";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { useKeys } from "../../shared/useKeys";
import { Waiting } from "../../shared/Waiting";
import { MessagePane } from "../dispatch/MessagePane";
import { Drills } from "./Drills";
import { served } from "../../shared/served";
import styles from "./PostroomPage.module.css";
import { emptyPostroom, postroomMessages, returnMessage } from "./api";

/** What the practice mail server received, read as the recipient would. */
export function PostroomPage() {
  const book = useBookId();
  const { moment } = useClock();
  const client = useQueryClient();
  const [picked, setPicked] = useState<number>();
  const [search, setSearch] = useState("");
  const [drilling, setDrilling] = useState(false);
  const received = useQuery({
    queryKey: ["postroom", book, search],
    queryFn: () => postroomMessages(book, search),
    refetchInterval: 2000,
    placeholderData: keepPreviousData,
  });
  const clearing = useMutation({
    mutationFn: () => emptyPostroom(book),
    onSuccess: () => client.invalidateQueries({ queryKey: ["postroom", book] }),
  });
  const returning = useMutation({
    mutationFn: (id: number) => returnMessage(book, id),
    onSuccess: async (report) => {
      await client.invalidateQueries({ queryKey: ["postroom", book] });
      setPicked(report.id);
    },
  });
  const { count: all = 0, found = 0, twice = 0, messages = [] } = received.data ?? {};
  const shown = messages.find((m) => m.id === picked) ?? messages[0];
  const step = (by: number) => {
    const at = messages.findIndex((m) => m.id === shown?.id);
    setPicked(messages[Math.min(messages.length - 1, Math.max(0, at + by))]?.id);
  };
  useKeys({ j: () => step(1), k: () => step(-1) });
  return (
    <div className="split">
      <div className="page-head">
        <h1>Postroom</h1>
        <span className="quiet" role="status">
          {count(all, "message")} · nothing here has left this machine
          {twice > 0 && <span className={styles.cameTwice}> · {count(twice, "message")} came more than once</span>}
        </span>
        <Input
          className="push width-180"
          size="small"
          type="search"
          aria-label="Search the postroom"
          placeholder="Address or subject"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
        <Button size="small" aria-expanded={drilling} onClick={() => setDrilling(!drilling)}>
          Drills
        </Button>
        {all > 0 && (
          <Button size="small" onClick={() => clearing.mutate()}>
            Delete all
          </Button>
        )}
      </div>
      {drilling && <Drills />}
      <div className="split-list" tabIndex={0} role="region" aria-label="Messages received">
        <Waiting query={received}>
          {({ messages: list }) =>
            list.length === 0 ? (
              <p className="quiet inside-18">
                {search
                  ? "Nothing that came in is like that."
                  : "Nothing has come in. Release a round under the practice sender, and its messages arrive here."}
              </p>
            ) : (
              <table className="ledger">
                <thead>
                  <tr>
                    <th scope="col">Received</th>
                    <th scope="col">To</th>
                    <th scope="col">Subject</th>
                    <th scope="col" className="figure">
                      Files
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {list.map((m) => (
                    <tr key={m.id} className="pick" aria-selected={m.id === shown?.id} onClick={() => setPicked(m.id)}>
                      <td className="nowrap">{moment(m.receivedAt)}</td>
                      <td className="cut share-34">{m.recipients.join("; ")}</td>
                      <td className="cut share-44">
                        <button type="button" className="link" onClick={() => setPicked(m.id)}>
                          {m.subject}
                        </button>
                        {m.deliveries > 1 && <span className={styles.cameTwice}> came {m.deliveries} times</span>}
                      </td>
                      <td className="figure">{m.enclosureCount}</td>
                    </tr>
                  ))}
                </tbody>
                {found > list.length && (
                  <tfoot>
                    <tr>
                      <td colSpan={4} className="quiet">
                        and {(found - list.length).toLocaleString("en-GB")} older ones; search for them by address or
                        subject
                      </td>
                    </tr>
                  </tfoot>
                )}
              </table>
            )
          }
        </Waiting>
      </div>
      <div className="split-pane" tabIndex={0} role="region" aria-label="The message">
        {shown && (
          <>
            <MessagePane key={shown.id} base={served(`/api/books/${book}/postroom/${shown.id}`)} />
            <p>
              <Button size="small" loading={returning.isPending} onClick={() => returning.mutate(shown.id)}>
                Send delivery report
              </Button>{" "}
              <span className="quiet">
                as a delivery report to the sender; save that as a file and take it in on the dispatch log
              </span>
            </p>
          </>
        )}
      </div>
    </div>
  );
}
