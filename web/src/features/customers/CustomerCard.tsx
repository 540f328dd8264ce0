import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Checkbox, Form, Input, InputNumber, Select } from "antd";
import { api, must, Problem, type Schemas } from "../../shared/api/client";
import { languages } from "../../shared/languages";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { AmountField } from "../../shared/AmountField";
import { useLayouts } from "../layouts/useLayouts";
import { lines } from "../sign-in/FirmFields";
import { formWords, groupsWords } from "../rounds/words";
import { merged } from "./merged";
import { CustomerHistory } from "./CustomerHistory";
import { ReturnedAddresses } from "./ReturnedAddresses";
import { useWordings } from "../wordings/useWordings";

type Card = Schemas["CustomerView"];
type Contact = Schemas["Contact"];

interface CardText {
  name: string;
  contacts: Contact[];
  salutation: string;
  delivery: Card["delivery"];
  postal: string;
  country: string;
  language: string;
  days: number | null;
  from: "document" | "month";
  headOffice: string;
  groups: Card["groups"];
  form: Card["form"];
  unit: string;
  minimum: number | null;
  onHold: boolean;
  ownWording: number | null;
  ownLayout: number | null;
  notes: string;
}

const roles: { value: Contact["role"]; label: string }[] = [
  { value: "to", label: "to" },
  { value: "copy", label: "copy" },
  { value: "blind-copy", label: "blind copy" },
];

const rounds: { value: Schemas["RoundKind"]; label: string }[] = [
  { value: "statements", label: "statements" },
  { value: "reminders", label: "reminders" },
  { value: "invoices", label: "invoices" },
  { value: "confirmations", label: "confirmations" },
  { value: "notices", label: "notices" },
];

const deliveries: { value: Card["delivery"]; label: string }[] = [
  { value: "email", label: "e-mail" },
  { value: "post", label: "post" },
  { value: "both", label: "e-mail and post" },
  { value: "nothing", label: "nothing" },
];

const nobody: Contact = { name: "", title: "", address: "", role: "to", rounds: [] };

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
  const params = { path: { book }, query: { key: customer } };
  const card = useQuery({
    queryKey: ["customer", book, customer],
    queryFn: () => must(api.GET("/api/books/{book}/customers/card", { params })),
  });
  const layouts = useLayouts();
  const wordings = useWordings();
  const [form] = Form.useForm<CardText>();
  const saving = useMutation({
    mutationFn: ({ text, on }: { text: CardText; on: Card }) =>
      must(api.PUT("/api/books/{book}/customers/card", { params, body: requestOf(text, on.version) })),
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
          <p className="quiet" style={{ marginTop: 0 }}>
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
          {saving.error && <Alert type="error" title={saving.error.message} style={{ marginBottom: 10 }} />}
          <ReturnedAddresses customer={customer} />
          {c.badAddresses.map((bad) => (
            <Alert key={bad} type="warning" title={`“${bad}” is not an e-mail address.`} style={{ marginBottom: 10 }} />
          ))}
          <Form.Item label="Name" name="name" rules={[{ required: true, message: "A customer needs a name." }]}>
            <Input />
          </Form.Item>
          <Contacts />
          <div className="two-fields">
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
            <Form.Item label="Payment terms, days" style={{ marginBottom: 8 }}>
              <div style={{ display: "flex", gap: 6 }}>
                <Form.Item name="days" noStyle>
                  <InputNumber
                    min={0}
                    max={3650}
                    precision={0}
                    style={{ width: 76 }}
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
              </div>
            </Form.Item>
            <Form.Item label="Minimum balance" name="minimum">
              <AmountField min={0} precision={2} style={{ width: "100%" }} placeholder="the round’s" />
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
            <Form.Item name="onHold" valuePropName="checked" style={{ alignSelf: "end" }}>
              <Checkbox>On hold: send nothing</Checkbox>
            </Form.Item>
          </div>
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
          <CustomerHistory customer={customer} />
        </Form>
      )}
    </Waiting>
  );
}

function Contacts() {
  return (
    <Form.List name="contacts">
      {(items, { add, remove }) => (
        <div className="contact-lines" role="group" aria-labelledby="contacts" style={{ marginBottom: 12 }}>
          <span id="contacts">Contacts, the addressee first</span>
          {items.map(({ key, name }) => (
            <div className="contact-line" key={key}>
              <Form.Item name={[name, "title"]} noStyle>
                <Input placeholder="Ms, Mr" aria-label={`Title of contact ${name + 1}`} />
              </Form.Item>
              <Form.Item name={[name, "name"]} noStyle>
                <Input placeholder="Full name" aria-label={`Name of contact ${name + 1}`} />
              </Form.Item>
              <Form.Item name={[name, "address"]} noStyle>
                <Input placeholder="E-mail" aria-label={`E-mail of contact ${name + 1}`} autoFocus={name === 0} />
              </Form.Item>
              <Form.Item name={[name, "role"]} noStyle>
                <Select aria-label={`Role of contact ${name + 1}`} options={roles} />
              </Form.Item>
              <Button
                type="text"
                aria-label={`Remove contact ${name + 1}`}
                style={{ padding: 0 }}
                onClick={() => remove(name)}
              >
                ✕
              </Button>
              <Form.Item name={[name, "rounds"]} noStyle>
                <Select
                  className="rounds"
                  mode="multiple"
                  aria-label={`Rounds of contact ${name + 1}`}
                  placeholder="gets all rounds"
                  options={rounds}
                />
              </Form.Item>
            </div>
          ))}
          <div>
            <Button onClick={() => add(nobody)}>Add a contact</Button>
          </div>
        </div>
      )}
    </Form.List>
  );
}

function textOf(c: Card): CardText {
  return {
    name: c.name,
    contacts: c.contacts.length > 0 ? c.contacts : [nobody],
    salutation: c.salutation,
    delivery: c.delivery,
    postal: c.postalLines.join("\n"),
    country: c.country,
    language: c.language,
    days: c.terms?.days ?? null,
    from: c.terms?.fromMonthEnd ? "month" : "document",
    headOffice: c.headOffice,
    groups: c.groups,
    form: c.form,
    unit: c.unit,
    minimum: c.minimumBalance === null ? null : Number(c.minimumBalance),
    onHold: c.onHold,
    ownWording: c.ownWording,
    ownLayout: c.ownLayout,
    notes: c.notes,
  };
}

function requestOf(
  { postal, days, from, form, minimum, ownWording, ownLayout, ...rest }: CardText,
  version: number,
): Schemas["CustomerRequest"] {
  return {
    ...rest,
    version,
    form: form ?? null,
    postalLines: lines(postal),
    terms: days === null ? null : { days, fromMonthEnd: from === "month" },
    minimumBalance: minimum,
    ownWording: ownWording ?? null,
    ownLayout: ownLayout ?? null,
  };
}
