import { useQuery } from "@tanstack/react-query";

import type { Schemas } from "../../shared/api/client";
import { Problem } from "../../shared/api/client";
import { Waiting } from "../../shared/Waiting";
import styles from "./MessagePane.module.css";
import { FillTabs } from "../../shared/FillTabs";

/** A message as its recipient sees it, from an address of the API that serves it with its page and enclosures. */
export function MessagePane({ base }: { base: string }) {
  const message = useQuery({
    queryKey: ["message", base],
    queryFn: async () => {
      const response = await fetch(base);
      if (!response.ok) {
        throw new Problem("This message cannot be opened.", response.status);
      }
      return (await response.json()) as Schemas["MessageView"];
    },
  });
  return (
    <Waiting query={message}>
      {(m) => (
        <article className={styles.message} aria-label={m.subject}>
          <dl>
            <dt>From</dt>
            <dd>{m.from}</dd>
            <dt>To</dt>
            <dd>{m.to}</dd>
            <dt>Sent</dt>
            <dd>{m.date}</dd>
            <dt>Subject</dt>
            <dd>
              <strong>{m.subject}</strong>
            </dd>
            <dt>Enclosed</dt>
            <dd>
              {m.enclosures.length === 0 && <span className="quiet">nothing</span>}
              {m.enclosures.map((e) => (
                <a key={e.index} href={`${base}/enclosures/${e.index}`} target="_blank" rel="noreferrer">
                  {e.name} ({Math.ceil(e.size / 1024)} kB)
                </a>
              ))}
            </dd>
            <dt>Copy</dt>
            <dd>
              {m.size.toLocaleString("en-GB")} bytes, exactly as sent · <a href={`${base}/message.eml`}>Save as .eml</a>
            </dd>
          </dl>
          <FillTabs
            size="small"
            items={[
              {
                key: "page",
                label: "Message",
                children: <iframe title="Message" sandbox="" src={`${base}/page`} className="letter-frame" />,
              },
              {
                key: "text",
                label: "Plain text",
                children: (
                  <pre className={styles.messageText} tabIndex={0}>
                    {m.text}
                  </pre>
                ),
              },
              {
                key: "headers",
                label: "Headers",
                children: (
                  <pre className={styles.messageText} tabIndex={0}>
                    {m.headers.map((h) => `${h.name}: ${h.value}`).join("\n")}
                  </pre>
                ),
              },
            ]}
          />
        </article>
      )}
    </Waiting>
  );
}
