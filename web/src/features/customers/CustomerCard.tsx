import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Checkbox, Flex, Form, Input, InputNumber, Select } from "antd";
import { AmountField } from "../../shared/AmountField";
import { Problem } from "../../shared/api/client";
import { Dense } from "../../shared/Dense";
import { languages } from "../../shared/languages";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { useLayouts } from "../layouts/useLayouts";
import { formWords, groupsWords } from "../rounds/words";
import { useWordings } from "../wordings/useWordings";
import { requestOf, textOf, type Card, type CardText } from "./cardText";
import { Contacts } from "./Contacts";
import { KeptFiles } from "../enclosures/KeptFiles";
import { CustomerHistory } from "./CustomerHistory";
import { merged } from "./merged";
import { ReturnedAddresses } from "./ReturnedAddresses";
import styles from "./CustomerCard.module.css";
import { customerCard, saveCustomerCard } from "./api";

const deliveries: { value: Card["delivery"]; label: string }[] = [
  { value: "email", label: "e-mail" },
  { value: "post", label: "post" },
  { value: "both", label: "e-mail and post" },
  { value: "nothing", label: "nothing" },
];

/** The card of one customer, put right in place. */
export function CustomerCard({
  customer,
  onDone,
  onOpen,
}: {
  customer: string;
  onDone: () => void;
  onOpen?: (key: string) => void;
}) {
  const book = useBookId();
  const client = useQueryClient();
  const card = useQuery({
    queryKey: ["customer", book, customer],
    queryFn: () => customerCard(book, customer),
  });
  const layouts = useLayouts();
  const wordings = useWordings();
  const [form] = Form.useForm<CardText>();
  const saving = useMutation({
    mutationFn: ({ text, on }: { text: CardText; on: Card }) =>
      saveCustomerCard(book, customer, requestOf(text, on.version)),
    onSuccess: async () => {
      await client.invalidateQueries();
      onDone();
    },
    onError: async (error, { text, on }) => {
      if (error instanceof Problem && error.status === 409) {
        const { data: now } = await card.refetch();
        if (now) {
          form.setFieldsValue(merged(text, textOf(on), textOf(now)));
        }
      }
    },
  });
  return (
    <Waiting query={card}>
      {(c) => (
        <Form<CardText>
          form={form}
          layout="vertical"
          size="small"
          requiredMark={false}
          initialValues={textOf(c)}
          onFinish={(text) => saving.mutate({ text, on: c })}
        >
          <p className="quiet above-0">
            {c.key}
            {c.fromLedger && " · known from the ledger only"}
            {c.branches.length > 0 && (
              <>
                {" · head office of "}
                {c.branches.slice(0, 12).map((b, i) => (
                  <span key={b}>
                    {i > 0 && ", "}
                    <button type="button" className="link" onClick={() => onOpen?.(b)}>
                      {b}
                    </button>
                  </span>
                ))}
                {c.branches.length > 12 && ` and ${c.branches.length - 12} more`}
              </>
            )}
          </p>
          {saving.error && <Alert className="below-10" type="error" title={saving.error.message} />}
          <ReturnedAddresses customer={customer} />
          {c.badAddresses.map((bad) => (
            <Alert className="below-10" key={bad} type="warning" title={`“${bad}” is not an e-mail address.`} />
          ))}
          <Form.Item label="Name" name="name" rules={[{ required: true, message: "A customer needs a name." }]}>
            <Input />
          </Form.Item>
          <Contacts />
          <Dense>
            <div className={styles.twoFields}>
              <Form.Item label="Delivery" name="delivery">
                <Select aria-label="Delivery" options={deliveries} />
              </Form.Item>
              <Form.Item label="Language" name="language">
                <Select aria-label="Language" options={languages} />
              </Form.Item>
              <Form.Item label="Salutation" name="salutation">
                <Input placeholder={c.opening || "made from title and name"} />
              </Form.Item>
              <Form.Item label="Wording" name="ownWording">
                <Select
                  aria-label="Wording"
                  allowClear
                  placeholder="the round’s"
                  options={(wordings.data?.wordings ?? []).map((w) => ({ value: w.id, label: w.name }))}
                />
              </Form.Item>
              <Form.Item label="Layout of statements" name="ownLayout">
                <Select
                  aria-label="Layout of statements"
                  allowClear
                  placeholder="the book’s"
                  options={(layouts.data?.layouts ?? []).map((l) => ({ value: l.id, label: l.name }))}
                />
              </Form.Item>
              <Form.Item label="Postal address" name="postal">
                <Input.TextArea rows={3} />
              </Form.Item>
              <Form.Item label="Internal notes" name="notes">
                <Input.TextArea rows={3} />
              </Form.Item>
              <Form.Item label="Country" name="country">
                <Input placeholder="your own" />
              </Form.Item>
              <Form.Item label="Business unit" name="unit">
                <Input />
              </Form.Item>
              <Form.Item className="below-8" label="Payment terms, days">
                <Flex gap={6}>
                  <Form.Item name="days" noStyle>
                    <InputNumber
                      className="width-76"
                      min={0}
                      max={3650}
                      precision={0}
                      aria-label="Payment terms, days"
                      placeholder="book’s"
                    />
                  </Form.Item>
                  <Form.Item name="from" noStyle>
                    <Select
                      aria-label="Counted from"
                      options={[
                        { value: "document", label: "from the document" },
                        { value: "month", label: "from the end of its month" },
                      ]}
                    />
                  </Form.Item>
                </Flex>
              </Form.Item>
              <Form.Item label="Minimum balance" name="minimum">
                <AmountField className="whole-width" min={0} precision={2} placeholder="the round’s" />
              </Form.Item>
              <Form.Item label="Head office" name="headOffice">
                <Input placeholder="none" />
              </Form.Item>
              <Form.Item label="Its statements list" name="form">
                <Select
                  aria-label="Its statements list"
                  allowClear
                  placeholder="what the book says"
                  options={Object.entries(formWords).map(([value, label]) => ({ value, label }))}
                />
              </Form.Item>
              <Form.Item label="Statements of its branches go to" name="groups" hidden={c.branches.length === 0}>
                <Select
                  aria-label="Statements of its branches go to"
                  options={Object.entries(groupsWords).map(([value, label]) => ({ value, label }))}
                />
              </Form.Item>
              <Form.Item className="at-end" name="onHold" valuePropName="checked">
                <Checkbox>On hold: send nothing</Checkbox>
              </Form.Item>
            </div>
          </Dense>
          {Object.keys(c.extra).length > 0 && (
            <table className="sums" aria-label="Columns of customer lists">
              <tbody>
                {Object.entries(c.extra).map(([heading, value]) => (
                  <tr key={heading}>
                    <td className="quiet">{heading}</td>
                    <td>{value}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <Button type="primary" htmlType="submit" size="middle" loading={saving.isPending}>
            Save card
          </Button>{" "}
          <Button size="middle" onClick={onDone}>
            Cancel
          </Button>
          <KeptFiles customer={customer} />
          <CustomerHistory customer={customer} />
        </Form>
      )}
    </Waiting>
  );
}
