import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Form, Popconfirm } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { ReturnedTable } from "../dispatch/ReturnedTable";
import { proposePort, ServerFields } from "./ServerFields";
import sendersStyles from "./senders.module.css";
import styles from "./ReplyMailbox.module.css";
import { Dense } from "../../shared/Dense";
import { endReplyMailbox, fetchReplies, keepReplyMailbox, replyMailbox } from "./api";

type Mailbox = Schemas["ReplyMailboxView"];
type Request = Schemas["ReplyMailboxRequest"];

/** The port that goes with each way to secure the line (RFC 3501, RFC 8314). */
const usualPorts: Record<string, number> = { starttls: 143, tls: 993 };

/** The mailbox that reports and automatic replies to a sender's messages are fetched from. */
export function ReplyMailbox({ sender }: { sender: number }) {
  const book = useBookId();
  const mailbox = useQuery({
    queryKey: ["replies", book, sender],
    queryFn: () => replyMailbox(book, sender),
  });
  return (
    <section className={styles.senderReplies} aria-label="Mail that comes back">
      <h2>Mail that comes back</h2>
      <Waiting query={mailbox}>
        {(shown) => <MailboxForm key={`${shown.isKept} ${shown.host}`} sender={sender} mailbox={shown} />}
      </Waiting>
    </section>
  );
}

function MailboxForm({ sender, mailbox }: { sender: number; mailbox: Mailbox }) {
  const book = useBookId();
  const { moment } = useClock();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [form] = Form.useForm<Request>();
  const [opened, setOpened] = useState(mailbox.isKept);
  const again = () => client.invalidateQueries({ queryKey: ["replies", book, sender] });
  const keeping = useMutation({
    mutationFn: (body: Request) => keepReplyMailbox(book, sender, body),
    onSuccess: async () => {
      await again();
      message.success("Kept. It is looked through every ten minutes.");
    },
  });
  const ending = useMutation({
    mutationFn: () => endReplyMailbox(book, sender),
    onSuccess: again,
  });
  const fetching = useMutation({
    mutationFn: () => fetchReplies(book, sender),
    onSuccess: () => client.invalidateQueries(),
  });
  if (!opened) {
    return (
      <p className="quiet">
        Reports of what could not be delivered arrive in the mailbox that answers go to. Rendal can fetch them from
        there by IMAP; it reads, and leaves the mailbox as it is.{" "}
        <Button size="small" onClick={() => setOpened(true)}>
          Fetch from a mailbox…
        </Button>
      </p>
    );
  }

  return (
    <Dense>
      <Form<Request>
        form={form}
        className={sendersStyles.sender}
        layout="vertical"
        requiredMark={false}
        initialValues={{ ...mailbox, password: "" }}
        onFinish={(fields) => keeping.mutate(fields)}
        onValuesChange={(change: Partial<Request>) => proposePort(form, change, usualPorts)}
      >
        {keeping.error && <Alert className="below-12" type="error" title={keeping.error.message} />}
        <ServerFields
          words={{
            host: "Server of the mailbox",
            security: "Its security",
            port: "Its port",
            userName: "User name of the mailbox",
            password: "Its password",
          }}
          passwordNow={mailbox.hasPassword ? "the one that is kept" : ""}
          userNameNeeded
        />
        <div className={sendersStyles.senderActs}>
          <Button htmlType="submit" loading={keeping.isPending}>
            {mailbox.isKept ? "Save mailbox" : "Add mailbox"}
          </Button>
          {mailbox.isKept && (
            <>
              <Button loading={fetching.isPending} onClick={() => fetching.mutate()}>
                Fetch now
              </Button>
              <Popconfirm
                title="Stop fetching from this mailbox?"
                description="What was taken in stays."
                okText="Stop fetching"
                cancelText="Cancel"
                onConfirm={() => ending.mutate()}
              >
                <Button type="text">Stop fetching</Button>
              </Popconfirm>
            </>
          )}
        </div>
        {mailbox.isKept && <p className="quiet">{status(mailbox, moment)}</p>}
        {ending.error && <Alert className="above-12" type="error" title={ending.error.message} />}
        {fetching.error && <Alert className="above-12" type="error" title={fetching.error.message} />}
        {mailbox.trouble && <Alert className="above-12" type="warning" title={`Not fetched: ${mailbox.trouble}`} />}
        {fetching.data && !fetching.data.trouble && (
          <div className="above-12" role="status">
            <p>
              {fetching.data.lookedAt === 0
                ? "Nothing new is in it."
                : `${count(fetching.data.lookedAt, "new message")} looked at; ${fetching.data.taken.length === 0 ? "none is" : fetching.data.taken.length === 1 ? "one is" : `${fetching.data.taken.length} are`} about what was sent from here.`}
              {fetching.data.left > 0 && ` ${count(fetching.data.left, "more message")} will be fetched in a moment.`}
            </p>
            {fetching.data.taken.length > 0 && <ReturnedTable taken={fetching.data.taken} />}
          </div>
        )}
      </Form>
    </Dense>
  );
}

/** Where fetching stands, in a sentence. */
function status({ lookedAt, taken }: Mailbox, moment: (iso: string) => string): string {
  return lookedAt === null
    ? "It has not been looked through yet."
    : `It was looked through ${moment(lookedAt)}; ${taken === 0 ? "nothing in it was" : `${count(taken, "message")} in it ${taken === 1 ? "was" : "were"}`} about what was sent from here.`;
}
