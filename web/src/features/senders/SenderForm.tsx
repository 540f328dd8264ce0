import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Form, Input, InputNumber, Select } from "antd";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";

type Sender = Schemas["SenderView"];
type SenderText = Omit<Schemas["SenderRequest"], "security"> & { security: string };

/** The port that goes with each way to secure the line (RFC 6409, RFC 8314). */
const usualPorts: Record<string, number> = { starttls: 587, tls: 465 };

/** The mail account of the book and the name that its messages go out under. */
export function SenderForm() {
  const book = useBookId();
  const senders = useQuery({
    queryKey: ["senders", book],
    queryFn: () => must(api.GET("/api/books/{book}/senders", { params: { path: { book } } })),
  });
  return <Waiting query={senders}>{(list) => <>{list[0] && <Fields key={list[0].id} sender={list[0]} />}</>}</Waiting>;
}

function Fields({ sender }: { sender: Sender }) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [form] = Form.useForm<SenderText>();
  const saving = useMutation({
    mutationFn: (body: SenderText) =>
      must(api.PUT("/api/books/{book}/senders/{id}", { params: { path: { book, id: sender.id } }, body })),
    onSuccess: async (saved) => {
      await client.invalidateQueries({ queryKey: ["senders", book] });
      message.success(saved.isPractice ? "Kept. It sends to the postroom." : `Kept. It sends by ${saved.host}.`);
    },
  });
  return (
    <Form<SenderText>
      form={form}
      layout="vertical"
      requiredMark={false}
      style={{ maxWidth: 520 }}
      initialValues={{ ...sender, password: "" }}
      onFinish={(values) => saving.mutate(values)}
      onValuesChange={(change: Partial<SenderText>) => {
        const port = change.security && usualPorts[change.security];
        if (port) {
          form.setFieldValue("port", port);
        }
      }}
    >
      {sender.isPractice && (
        <p className="quiet" style={{ marginTop: 0 }}>
          This is the practice account: what it sends ends in the postroom and leaves this machine never. To send for
          real, fill in the mail account of your firm; your mail provider names the server.
        </p>
      )}
      {sender.paused && (
        <Alert
          type="error"
          title={`Stopped: ${sender.paused} Put it right and keep it here; sending goes on then.`}
          style={{ marginBottom: 12 }}
        />
      )}
      {saving.error && <Alert type="error" title={saving.error.message} style={{ marginBottom: 12 }} />}
      <div className="sender-pair">
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
      </div>
      <div className="sender-line">
        <Form.Item label="Mail server" name="host" rules={[{ required: true, message: "The server is missing." }]}>
          <Input />
        </Form.Item>
        <Form.Item label="Security" name="security">
          <Select
            aria-label="Security"
            options={[
              { value: "starttls", label: "STARTTLS" },
              { value: "tls", label: "TLS" },
              { value: "none", label: "none (this machine only)" },
            ]}
          />
        </Form.Item>
        <Form.Item label="Port" name="port">
          <InputNumber min={1} max={65535} controls={false} style={{ width: "100%" }} />
        </Form.Item>
      </div>
      <div className="sender-pair">
        <Form.Item label="User name" name="userName">
          <Input autoComplete="off" />
        </Form.Item>
        <Form.Item label="Password, or app password" name="password">
          <Input.Password autoComplete="new-password" placeholder={sender.hasPassword ? "the one that is kept" : ""} />
        </Form.Item>
      </div>
      <Button type="primary" htmlType="submit" loading={saving.isPending}>
        Keep this account
      </Button>
    </Form>
  );
}
