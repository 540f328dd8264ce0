import { Button, Form, Input, Select } from "antd";
import type { Schemas } from "../../shared/api/client";
import { nobody, type Contact } from "./cardText";
import styles from "./Contacts.module.css";

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

/** Who is written to, in a form with the field `contacts`. */
export function Contacts() {
  return (
    <Form.List name="contacts">
      {(items, { add, remove }) => (
        <div className={`${styles.contactLines} below-12`} role="group" aria-labelledby="contacts">
          <span id="contacts">Contacts, the addressee first</span>
          {items.map(({ key, name }) => (
            <div className={styles.contactLine} key={key}>
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
                className="bare"
                type="text"
                aria-label={`Remove contact ${name + 1}`}
                onClick={() => remove(name)}
              >
                ✕
              </Button>
              <Form.Item name={[name, "rounds"]} noStyle>
                <Select
                  className={styles.rounds}
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
