import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Checkbox, Form, Input, InputNumber } from "antd";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { AmountField } from "../../shared/AmountField";
import { proposePort, ServerFields } from "./ServerFields";
import { Trial } from "./Trial";
import type { Sender } from "./useSenders";
import sendersStyles from "./senders.module.css";
import styles from "./SenderForm.module.css";
import { Dense } from "../../shared/Dense";
import { addSender, saveSender, trySender } from "./api";

type Request = Schemas["SenderSettings"];
type Fields = Omit<Request, "largestBytes" | "pauseMinutes"> & { largestMegabytes: number | null; pauses: string };

const megabyte = 1_000_000;

/** The port that goes with each way to secure the line (RFC 6409, RFC 8314). */
const usualPorts: Record<string, number> = { starttls: 587, tls: 465 };

/** One mail account: who sends, by which server, and how much it may. */
export function SenderForm({ sender, onKept }: { sender: Sender; onKept: (kept: Sender) => void }) {
  const book = useBookId();
  const { moment } = useClock();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [form] = Form.useForm<Fields>();
  const keeping = useMutation({
    mutationFn: (body: Request) => (sender.id === 0 ? addSender(book, body) : saveSender(book, sender.id, body)),
    onSuccess: async (kept) => {
      await client.invalidateQueries({ queryKey: ["senders", book] });
      onKept(kept);
      message.success(kept.isPractice ? "Kept. It sends to the postroom." : `Kept. It sends by ${kept.host}.`);
    },
  });
  const trying = useMutation({
    mutationFn: (body: Request) => trySender(book, sender.id, body),
    onSuccess: (result) => {
      if (result.largestBytes !== null && !form.getFieldValue("largestMegabytes")) {
        form.setFieldValue("largestMegabytes", Math.floor(result.largestBytes / 100_000) / 10);
      }
    },
  });
  return (
    <Dense>
      <Form<Fields>
        form={form}
        layout="vertical"
        requiredMark={false}
        className={sendersStyles.sender}
        initialValues={{
          ...sender,
          password: "",
          pauses: sender.pauseMinutes.join(", "),
          largestMegabytes: sender.largestBytes === null ? null : sender.largestBytes / megabyte,
        }}
        onFinish={(fields) => keeping.mutate(request(fields))}
        onValuesChange={(change: Partial<Fields>) => proposePort(form, change, usualPorts)}
      >
        {sender.isPractice && (
          <p className="quiet above-0">
            This is the practice account: what it sends ends in the postroom and never leaves this machine. To send for
            real, fill in the mail account of your firm; your mail provider names the server.
          </p>
        )}
        {sender.paused && (
          <Alert
            className="below-12"
            type="error"
            title={`Stopped: ${sender.paused} Correct it and save it here; sending goes on then.`}
          />
        )}
        {sender.unreachable && (
          <Alert
            className="below-12"
            type="warning"
            title={`Its server cannot be reached since ${moment(sender.unreachable.since)}: ${sender.unreachable.words}. It is asked again by itself.`}
          />
        )}
        {keeping.error && <Alert className="below-12" type="error" title={keeping.error.message} />}
        <div className={sendersStyles.senderPair}>
          <Form.Item
            label="Name that recipients see"
            name="name"
            rules={[{ required: true, message: "The name is missing." }]}
          >
            <Input />
          </Form.Item>
          <Form.Item label="Address" name="address" rules={[{ required: true, message: "The address is missing." }]}>
            <Input />
          </Form.Item>
          <Form.Item label="Reply-to" name="replyTo">
            <Input placeholder="the same address" />
          </Form.Item>
          <Form.Item label="Signature, a line each" name="signature">
            <Input.TextArea rows={2} placeholder="the name that recipients see" />
          </Form.Item>
          <Form.Item className="at-end" name="copyToSelf" valuePropName="checked">
            <Checkbox>a blind copy of each message to the address</Checkbox>
          </Form.Item>
          <Form.Item name="isMine" valuePropName="checked">
            <Checkbox disabled={sender.id !== 0 && !sender.isMine}>private: nobody else sends with it</Checkbox>
          </Form.Item>
        </div>
        <ServerFields
          words={{
            host: "Mail server",
            security: "Security",
            port: "Port",
            userName: "User name",
            password: "Password, or app password",
          }}
          passwordNow={sender.hasPassword ? "the one that is kept" : ""}
        />
        <div className={styles.senderLimits}>
          <Form.Item label="Messages a minute" name="aMinute">
            <InputNumber
              className="whole-width"
              min={1}
              max={100_000}
              precision={0}
              controls={false}
              placeholder="no limit"
            />
          </Form.Item>
          <Form.Item label="Messages a day" name="aDay">
            <InputNumber
              className="whole-width"
              min={1}
              max={10_000_000}
              precision={0}
              controls={false}
              placeholder="no limit"
            />
          </Form.Item>
          <Form.Item label="Largest message" name="largestMegabytes">
            <AmountField
              className="whole-width"
              min={0.1}
              max={1000}
              step={0.1}
              controls={false}
              suffix="MB"
              placeholder="not known"
            />
          </Form.Item>
          <Form.Item
            label="Retry after"
            name="pauses"
            rules={[{ pattern: /^\s*(\d+(\s*[,; ]\s*\d+)*)?\s*$/, message: "Write whole minutes: 1, 5, 15, 60." }]}
          >
            <Input placeholder="not again" suffix="min" />
          </Form.Item>
          {sender.aDay !== null && (
            <p className="quiet">
              {sender.begunToday.toLocaleString("en-GB")} of {sender.aDay.toLocaleString("en-GB")} are used up today.
            </p>
          )}
        </div>
        <div className={sendersStyles.senderActs}>
          <Button type="primary" htmlType="submit" loading={keeping.isPending}>
            Save sender
          </Button>
          <Button
            loading={trying.isPending}
            onClick={() => void form.validateFields().then((fields) => trying.mutate(request(fields)))}
          >
            Test
          </Button>
          <span className="quiet">trying sends nothing and keeps nothing</span>
        </div>
        {trying.error && <Alert className="above-12" type="error" title={trying.error.message} />}
        {trying.data && <Trial result={trying.data} />}
      </Form>
    </Dense>
  );
}

function request({ largestMegabytes, pauses, ...fields }: Fields): Request {
  return {
    ...fields,
    aMinute: fields.aMinute ?? null,
    aDay: fields.aDay ?? null,
    pauseMinutes: (pauses.match(/\d+/g) ?? []).map(Number),
    largestBytes: largestMegabytes ? Math.round(largestMegabytes * megabyte) : null,
  };
}
