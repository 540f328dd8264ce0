import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { api, must } from "../../shared/api/client";
import { count, moment } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import { Waiting } from "../../shared/Waiting";
import "../dispatch/message.css";
import { MessagePane } from "../dispatch/MessagePane";

/** What the practice mail server received, read as the recipient would. */
export function PostroomPage() {
  const book = useBookId();
  const client = useQueryClient();
  const [picked, setPicked] = useState<number>();
  const received = useQuery({
    queryKey: ["postroom", book],
    queryFn: () => must(api.GET("/api/books/{book}/postroom", { params: { path: { book } } })),
    refetchInterval: 2000,
  });
  const clearing = useMutation({
    mutationFn: () => must(api.DELETE("/api/books/{book}/postroom", { params: { path: { book } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["postroom", book] }),
  });
  const messages = received.data ?? [];
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
          {count(messages.length, "message")} · nothing here has left this machine
        </span>
        {messages.length > 0 && (
          <Button className="push" onClick={() => clearing.mutate()}>
            Empty it
          </Button>
        )}
      </div>
      <div className="split-list" tabIndex={0} role="region" aria-label="Messages received">
        <Waiting query={received}>
          {(list) =>
            list.length === 0 ? (
              <p className="quiet" style={{ padding: 18 }}>
                Nothing has come in. Release a round under the practice sender, and its messages arrive here.
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
                      <td style={{ whiteSpace: "nowrap" }}>{moment(m.receivedAt)}</td>
                      <td className="cut" style={{ width: "34%" }}>
                        {m.recipients.join("; ")}
                      </td>
                      <td className="cut" style={{ width: "44%" }}>
                        <button type="button" className="link" onClick={() => setPicked(m.id)}>
                          {m.subject}
                        </button>
                      </td>
                      <td className="figure">{m.enclosureCount}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )
          }
        </Waiting>
      </div>
      <div className="split-pane" tabIndex={0} role="region" aria-label="The message">
        {shown && <MessagePane key={shown.id} base={`/api/books/${book}/postroom/${shown.id}`} />}
      </div>
    </div>
  );
}
