import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Checkbox, Form, Input, Select } from "antd";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { lines } from "../sign-in/FirmFields";

interface CardText extends Omit<Schemas["CustomerRequest"], "postalLines"> {
  postal: string;
}

const languages = [
  ["en", "English"],
  ["de", "Deutsch"],
  ["fr", "français"],
  ["es", "español"],
  ["it", "italiano"],
  ["nl", "Nederlands"],
];

/** The card of one customer, put right in place. */
export function CustomerCard({ customer, onDone }: { customer: string; onDone: () => void }) {
  const book = useBookId();
  const client = useQueryClient();
  const params = { path: { book }, query: { key: customer } };
  const card = useQuery({
    queryKey: ["customer", book, customer],
    queryFn: () => must(api.GET("/api/books/{book}/customers/card", { params })),
  });
  const saving = useMutation({
    mutationFn: ({ postal, ...rest }: CardText) =>
      must(api.PUT("/api/books/{book}/customers/card", { params, body: { ...rest, postalLines: lines(postal) } })),
    onSuccess: async () => {
      await client.invalidateQueries();
      onDone();
    },
  });
  return (
    <Waiting query={card}>
      {(c) => (
        <Form<CardText>
          layout="vertical"
          requiredMark={false}
          initialValues={{ ...c, postal: c.postalLines.join("\n") }}
          onFinish={(values) => saving.mutate(values)}
        >
          <p className="quiet" style={{ marginTop: 0 }}>
            {c.key}
            {c.fromLedger && " · known from the ledger only"}
          </p>
          {saving.error && <Alert type="error" title={saving.error.message} style={{ marginBottom: 10 }} />}
          {c.badAddresses.map((bad) => (
            <Alert key={bad} type="warning" title={`“${bad}” is not an e-mail address.`} style={{ marginBottom: 10 }} />
          ))}
          <Form.Item label="Name" name="name" rules={[{ required: true, message: "A customer needs a name." }]}>
            <Input />
          </Form.Item>
          <Form.Item label="E-mail, several parted by a semicolon" name="email">
            <Input autoFocus />
          </Form.Item>
          <div style={{ display: "grid", gridTemplateColumns: "110px 1fr", gap: 10 }}>
            <Form.Item label="Title" name="title">
              <Input placeholder="Ms, Mr, Dr" />
            </Form.Item>
            <Form.Item label="Contact" name="contact">
              <Input />
            </Form.Item>
          </div>
          <Form.Item label="Street, town and postcode, a line each" name="postal">
            <Input.TextArea rows={3} />
          </Form.Item>
          <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 10 }}>
            <Form.Item label="Country" name="country">
              <Input />
            </Form.Item>
            <Form.Item label="Language" name="language">
              <Select aria-label="Language" options={languages.map(([value, label]) => ({ value, label }))} />
            </Form.Item>
          </div>
          <Form.Item name="onHold" valuePropName="checked">
            <Checkbox>On hold: send nothing</Checkbox>
          </Form.Item>
          <Button type="primary" htmlType="submit" loading={saving.isPending}>
            Put right
          </Button>{" "}
          <Button onClick={onDone}>Leave as it is</Button>
        </Form>
      )}
    </Waiting>
  );
}
