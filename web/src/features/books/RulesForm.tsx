import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Checkbox, Form, Input, InputNumber, Select } from "antd";
import type { Schemas } from "../../shared/api/client";
import { useBook, useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { formWords } from "../rounds/words";
import { LevelFields } from "./LevelFields";
import styles from "./RulesForm.module.css";
import { saveRules } from "./api";

type Rules = Schemas["RulesRequest"];
type RulesText = Omit<Rules, "settlement" | "levels"> & {
  levels: Partial<Record<keyof Rules["levels"][number], number | null>>[];
  settlement: NonNullable<Rules["settlement"]> | "by-file";
};

/** What holds for all statements of the book: bands, what they list, how payments are set against invoices. */
export function RulesForm() {
  const details = useBook();
  return <Waiting query={details}>{(b) => <Fields key={b.id} rules={b.rules} />}</Waiting>;
}

function Fields({ rules }: { rules: Rules }) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const saving = useMutation({
    mutationFn: ({ settlement, ...rest }: RulesText) =>
      saveRules(book, {
        ...rest,
        // A field that was emptied comes as nothing at all; of a level without days the rule says what is wrong.
        levels: rest.levels.map((l) => ({ days: l.days ?? 0, gap: l.gap ?? 0, wording: l.wording ?? null })),
        settlement: settlement === "by-file" ? null : settlement,
      }),
    onSuccess: async () => {
      await client.invalidateQueries();
      message.success("Rounds that are prepared from now on go by it.");
    },
  });
  return (
    <Form<RulesText>
      layout="vertical"
      requiredMark={false}
      className={styles.rules}
      initialValues={{ ...rules, settlement: rules.settlement ?? "by-file" }}
      onFinish={(text) => saving.mutate(text)}
    >
      <div>
        <p className="quiet above-0">
          This holds for every statement of the book, unless a customer’s card or a round says otherwise. Rounds that
          were released stay as they are.
        </p>
        <Form.Item
          label="Last day of each age band"
          name="edges"
          extra={<span className="quiet">30, 60, 90 gives 1–30, 31–60, 61–90 and over 90 days.</span>}
        >
          <Input />
        </Form.Item>
        <Form.Item label="Age counts from" name="by">
          <Select
            aria-label="Age counts from"
            options={[
              { value: "due", label: "the due date" },
              { value: "document", label: "the document’s date" },
            ]}
          />
        </Form.Item>
        <Form.Item label="Credits stand" name="creditsByDate">
          <Select
            aria-label="Credits stand"
            options={[
              { value: false, label: "apart from the bands" },
              { value: true, label: "in the band of their own age" },
            ]}
          />
        </Form.Item>
        <Form.Item label="A statement lists" name="form">
          <Select
            aria-label="A statement lists"
            options={Object.entries(formWords).map(([value, label]) => ({ value, label }))}
          />
        </Form.Item>
        <Form.Item label="Payments settle" name="settlement">
          <Select
            aria-label="Payments settle"
            options={[
              { value: "by-file", label: "as the file needs it: nothing where it gives what is open" },
              { value: "oldest", label: "the document that they name, then the oldest" },
              { value: "reference", label: "only the document that they name" },
              { value: "none", label: "nothing" },
            ]}
          />
        </Form.Item>
        <Form.Item
          label="Default payment terms, days"
          name="termsDays"
          extra={<span className="quiet">They count from the next file that is taken in.</span>}
        >
          <InputNumber min={0} max={3650} precision={0} />
        </Form.Item>
      </div>
      <div>
        <h2>Reminders</h2>
        <p className="quiet above-0">
          The oldest open item of a customer decides. A level goes once, and only after the one before it.
        </p>
        <LevelFields />
        <Form.Item name="mayRepeat" valuePropName="checked" noStyle>
          <Checkbox>The last level is sent again, its days after the last time, until the item is paid</Checkbox>
        </Form.Item>
        <Form.Item className="below-16" name="maySkip" valuePropName="checked">
          <Checkbox>A level may be skipped where an item is old enough for the next one</Checkbox>
        </Form.Item>
      </div>
      <div className={styles.rulesEnd}>
        {saving.error && <Alert className="below-12" type="error" title={saving.error.message} />}
        <Button type="primary" htmlType="submit" loading={saving.isPending}>
          Save rules
        </Button>
      </div>
    </Form>
  );
}
