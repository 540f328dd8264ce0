import { Button } from "antd";
import { useState } from "react";
import { Waiting } from "../../shared/Waiting";
import { ReplyMailbox } from "./ReplyMailbox";
import { SenderForm } from "./SenderForm";
import { useSenders, type Sender } from "./useSenders";

/** The mail accounts of the book, and the names that its messages go out under. */
export function SendersPage() {
  const senders = useSenders();
  const [picked, setPicked] = useState<number>();
  return (
    <Waiting query={senders}>
      {(list) => {
        const shown = picked === 0 ? fresh(list[0]) : (list.find((s) => s.id === picked) ?? list[0]);
        return (
          <div className="words">
            <nav className="side-list" aria-label="Senders">
              {list.map((s) => (
                <button key={s.id} type="button" aria-current={s.id === shown?.id} onClick={() => setPicked(s.id)}>
                  {s.name}
                  <small className="quiet">
                    {s.isPractice ? "practice" : s.address}
                    {s.isMine && " · my own"}
                    {s.paused && " · stopped"}
                    {s.unreachable && " · server away"}
                  </small>
                </button>
              ))}
              <Button size="small" disabled={picked === 0} onClick={() => setPicked(0)}>
                Add sender
              </Button>
            </nav>
            <div>
              {shown && <SenderForm key={shown.id} sender={shown} onKept={(kept) => setPicked(kept.id)} />}
              {shown && shown.id > 0 && <ReplyMailbox key={`replies ${shown.id}`} sender={shown.id} />}
            </div>
          </div>
        );
      }}
    </Waiting>
  );
}

/** A sender that is still to be filled in, of the same firm. */
function fresh(first: Sender | undefined): Sender {
  return {
    id: 0,
    name: first?.name ?? "",
    address: "",
    replyTo: "",
    signature: "",
    copyToSelf: false,
    host: "",
    port: 587,
    security: "starttls",
    userName: "",
    hasPassword: false,
    aMinute: null,
    aDay: null,
    begunToday: 0,
    largestBytes: null,
    pauseMinutes: [1, 5, 15, 60],
    paused: "",
    unreachable: null,
    isMine: false,
    isPractice: false,
  };
}
