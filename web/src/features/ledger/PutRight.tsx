import { useMutation, useQuery } from "@tanstack/react-query";
import { Alert, Checkbox, Form, Input, Modal, Segmented } from "antd";
import { useState } from "react";

import { useBookId } from "../../shared/useBook";
import { correctValue, fileRows, leaveOutRow } from "./api";

/** The cell whose value is to be put right. */
export interface WrongCell {
  row: number;
  column: number;
  heading: string;
}

interface Answer {
  what: "value" | "row";
  becomes: string;
  everywhere: boolean;
  reason: string;
}

/**
 * Puts one value right over the source, or leaves its row out. The dialog is there at once, and what is in the cell is
 * asked for meanwhile: whoever types on after the key that opened it types into it.
 */
export function PutRight({
  intake,
  cell,
  what,
  onClose,
  onDone,
}: {
  intake: number;
  cell: WrongCell;
  what: Answer["what"];
  onClose: () => void;
  onDone: () => void;
}) {
  const book = useBookId();
  const [form] = Form.useForm<Answer>();
  const [kind, setKind] = useState(what);
  const held = useQuery({
    queryKey: ["intake cell", book, intake, cell.row, cell.column],
    queryFn: async () => {
      const part = await fileRows(book, intake, cell.row, 1);
      const row = part.rows[0];
      const was = row?.values[String(cell.column)] ?? row?.cells[cell.column] ?? "";
      return { was, now: row?.corrected[String(cell.column)] ?? was };
    },
    gcTime: 0,
  });
  const saving = useMutation({
    mutationFn: ({ becomes, everywhere, reason }: Answer) =>
      kind === "row"
        ? leaveOutRow(book, { intake, row: cell.row, reason })
        : correctValue(book, { intake, row: cell.row, column: cell.column, becomes, everywhere }),
    onSuccess: onDone,
  });
  return (
    <Modal
      open
      title={`Row ${cell.row}, ${cell.heading}`}
      okText={kind === "row" ? "Leave out row" : "Save correction"}
      cancelText="Cancel"
      confirmLoading={saving.isPending}
      okButtonProps={{ disabled: kind === "value" && !held.data }}
      onOk={() => form.submit()}
      onCancel={onClose}
      destroyOnHidden
    >
      <Form<Answer>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ everywhere: false, reason: "" }}
        onFinish={(answer) => saving.mutate(answer)}
      >
        {saving.error && <Alert className="below-10" type="error" title={saving.error.message} />}
        <Form.Item>
          <Segmented<Answer["what"]>
            aria-label="What to do"
            value={kind}
            options={[
              { value: "value", label: "Correct value" },
              { value: "row", label: "Leave out row" },
            ]}
            onChange={setKind}
          />
        </Form.Item>
        {held.error && <Alert className="below-10" type="error" title={held.error.message} />}
        <p className="quiet only-below-10">
          {held.data?.was ? `The file says “${held.data.was}”.` : held.data ? "The file says nothing here." : "…"}
        </p>
        {kind === "value" ? (
          held.data && (
            <>
              <Form.Item label="Corrected value" name="becomes" initialValue={held.data.now}>
                <Input autoFocus onFocus={(e) => e.currentTarget.select()} onPressEnter={() => form.submit()} />
              </Form.Item>
              <Form.Item className="below-0" name="everywhere" valuePropName="checked">
                <Checkbox disabled={!held.data.was}>
                  Wherever “{held.data.was || "nothing"}” stands in {cell.heading}
                </Checkbox>
              </Form.Item>
            </>
          )
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
