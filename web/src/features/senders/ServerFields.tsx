import { Form, Input, InputNumber, Select, type FormInstance } from "antd";
import sendersStyles from "./senders.module.css";
import styles from "./ServerFields.module.css";
import { PasswordField } from "../../shared/PasswordField";

type Words = { host: string; security: string; port: string; userName: string; password: string };

/** A mail server, how the line to it is secured, and who signs in there: the fields `host`, `security`, `port`, `userName` and `password` of a form. */
export function ServerFields({
  words,
  passwordNow,
  userNameNeeded = false,
}: {
  words: Words;
  /** What holds where no password is typed. */
  passwordNow: string;
  userNameNeeded?: boolean;
}) {
  return (
    <>
      <div className={`${styles.senderLine} ${sendersStyles.senderLine}`}>
        <Form.Item label={words.host} name="host" rules={[{ required: true, message: "The server is missing." }]}>
          <Input />
        </Form.Item>
        <Form.Item label={words.security} name="security">
          <Select
            aria-label={words.security}
            options={[
              { value: "starttls", label: "STARTTLS" },
              { value: "tls", label: "TLS" },
              { value: "none", label: "none (this machine only)" },
            ]}
          />
        </Form.Item>
        <Form.Item label={words.port} name="port">
          <InputNumber className="whole-width" min={1} max={65535} controls={false} />
        </Form.Item>
      </div>
      <div className={sendersStyles.senderPair}>
        <Form.Item
          label={words.userName}
          name="userName"
          rules={[{ required: userNameNeeded, message: "The user name is missing." }]}
        >
          <Input autoComplete="off" />
        </Form.Item>
        <Form.Item label={words.password} name="password">
          <PasswordField autoComplete="new-password" placeholder={passwordNow} />
        </Form.Item>
      </div>
    </>
  );
}

/** Proposes the port that goes with the security when that was changed. */
export function proposePort<T>(form: FormInstance<T>, change: { security?: string }, ports: Record<string, number>) {
  const port = change.security && ports[change.security];
  if (port) {
    form.setFieldValue("port" as never, port);
  }
}
