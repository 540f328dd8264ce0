import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Modal } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { MessagePane } from "./MessagePane";
import { served } from "../../shared/served";
import { decideReturned, unclearReturned } from "./api";

type Unclear = Schemas["UnclearReturned"];

/** The messages that may be delivery reports and wait until a person has said so. */
export function useUnclear() {
  const book = useBookId();
  return useQuery({
    queryKey: ["unclear", book],
    queryFn: () => unclearReturned(book),
  });
}

/** What came back and does not say in a reliable form what it is: nothing follows from it until a person decides. */
export function UnclearReturned({ messages }: { messages: Unclear[] }) {
  const book = useBookId();
  const { dayOf } = useClock();
  const client = useQueryClient();
  const [open, setOpen] = useState<Unclear>();
  const decide = useMutation({
    mutationFn: ({ id, isFailure }: { id: number; isFailure: boolean }) => decideReturned(book, id, { isFailure }),
    onSuccess: () => {
      setOpen(undefined);
      return client.invalidateQueries();
    },
  });
  return (
    <>
      {decide.error && <Alert className="below-8" type="error" title={decide.error.message} />}
      <table className="ledger sheet" aria-label="Unclear">
        <tbody>
          {messages.map((m) => (
            <tr key={m.id}>
              <td className="nowrap">{dayOf(m.writtenAt)}</td>
              <td>
                <Link to={`/books/${book}/rounds/${m.round}?customer=${encodeURIComponent(m.customer)}`}>{m.name}</Link>
              </td>
              <td className="cut share-50" title={m.reason}>
                {m.reason}
              </td>
              <td className="nowrap">
                <Button size="small" aria-label={`Open the message about ${m.name}`} onClick={() => setOpen(m)}>
                  Open
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {open && (
        <Modal
          open
          width={760}
          title={`Was the message to ${open.name} not delivered?`}
          onCancel={() => setOpen(undefined)}
          footer={[
            <Button
              key="delivered"
              loading={decide.isPending}
              onClick={() => decide.mutate({ id: open.id, isFailure: false })}
            >
              It was delivered
            </Button>,
            <Button
              key="failed"
              type="primary"
              loading={decide.isPending}
              onClick={() => decide.mutate({ id: open.id, isFailure: true })}
            >
              Mark as returned
            </Button>,
          ]}
        >
          <MessagePane base={served(`/api/books/${book}/returned/${open.id}`)} />
        </Modal>
      )}
    </>
  );
}
