import { useMutation } from "@tanstack/react-query";
import { Alert, Checkbox, Form, Input, Modal, Segmented } from "antd";
import { useState } from "react";
import { api, must } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

/** The value that is to be put right. */
export interface WrongValue {
  row: number;
  column: number;
  heading: string;
  was: string;
  now: string;
}

interface Answer {
  what: "value" | "row";
  becomes: string;
  everywhere: boolean;
  reason: string;
}

/** Puts one value right over the source, or leaves its row out. */
export function PutRight({
  intake,
  value,
  what,
  onClose,
  onDone,
}: {
  intake: number;
  value: WrongValue;
  what: Answer["what"];
  onClose: () => void;
  onDone: () => void;
}) {
  const book = useBookId();
  const [form] = Form.useForm<Answer>();
  const [kind, setKind] = useState(what);
  const saving = useMutation({
    mutationFn: ({ becomes, everywhere, reason }: Answer) =>
      kind === "row"
        ? must(
            api.POST("/api/books/{book}/corrections/row", {
              params: { path: { book } },
              body: { intake, row: value.row, reason },
            }),
          )
        : must(
            api.POST("/api/books/{book}/corrections/value", {
              params: { path: { book } },
              body: { intake, row: value.row, column: value.column, becomes, everywhere },
            }),
          ),
    onSuccess: onDone,
  });
  return (
    <Modal
      open
      title={`Row ${value.row}, ${value.heading}`}
      okText={kind === "row" ? "Leave the row out" : "Put right"}
      cancelText="Leave as it is"
      confirmLoading={saving.isPending}
      onOk={() => form.submit()}
      onCancel={onClose}
      destroyOnHidden
    >
      <Form<Answer>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ becomes: value.now, everywhere: false, reason: "" }}
        onFinish={(answer) => saving.mutate(answer)}
      >
        {saving.error && <Alert type="error" title={saving.error.message} style={{ marginBottom: 10 }} />}
        <Form.Item>
          <Segmented<Answer["what"]>
            aria-label="What to do"
            value={kind}
            options={[
              { value: "value", label: "Put the value right" },
              { value: "row", label: "Leave the row out" },
            ]}
            onChange={setKind}
          />
        </Form.Item>
        <p className="quiet" style={{ margin: "0 0 10px" }}>
          {value.was ? `The file says “${value.was}”.` : "The file says nothing here."}
        </p>
        {kind === "value" ? (
          <>
            <Form.Item label="Right is" name="becomes">
              <Input autoFocus onFocus={(e) => e.currentTarget.select()} onPressEnter={() => form.submit()} />
            </Form.Item>
            <Form.Item name="everywhere" valuePropName="checked" style={{ marginBottom: 0 }}>
              <Checkbox disabled={!value.was}>
                Wherever “{value.was || "nothing"}” stands in {value.heading}
              </Checkbox>
            </Form.Item>
          </>
        ) : (
          <Form.Item
            label="Why"
            name="reason"
            rules={[{ required: true, whitespace: true, message: "Say why the row is left out." }]}
          >
            <Input autoFocus placeholder="for example: stands twice, paid in cash" onPressEnter={() => form.submit()} />
          </Form.Item>
        )}
      </Form>
    </Modal>
  );
}
