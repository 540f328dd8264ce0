import { useQuery } from "@tanstack/react-query";
import { Form, Input, Select } from "antd";
import type { Schemas } from "../../shared/api/client";
import { currencyList } from "./api";

/** The firm as it is typed in: lines as one text. */
export interface FirmText {
  firm: string;
  currency: string;
  address: string;
  contact: string;
  payment: string;
  /** What stands under every message; a new book begins without. */
  foot: string;
}

export const emptyFirm: Partial<FirmText> = { currency: "GBP", address: "", contact: "", payment: "" };

export const lines = (text: string) =>
  text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean);

/** A new book from what was typed in; its time zone is that of the browser. */
export function bookOf(text: FirmText): Schemas["NewBook"] {
  return {
    name: text.firm,
    currency: text.currency,
    addressLines: lines(text.address),
    contactLines: lines(text.contact),
    paymentLines: lines(text.payment),
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  };
}

export function FirmFields({ isNew = true }: { isNew?: boolean }) {
  const currencies = useQuery({
    queryKey: ["currencies"],
    queryFn: () => currencyList(),
    enabled: isNew,
    retry: false,
  });
  return (
    <>
      <Form.Item
        label="The firm’s name"
        name="firm"
        rules={[{ required: true, message: "The firm’s name is missing." }]}
      >
        <Input />
      </Form.Item>
      {isNew && (
        <Form.Item label="Currency" name="currency">
          <Select
            aria-label="Currency"
            showSearch
            options={(currencies.data ?? ["GBP", "EUR", "USD", "CHF"]).map((c) => ({ value: c, label: c }))}
          />
        </Form.Item>
      )}
      <Form.Item label="Address, a line each" name="address">
        <Input.TextArea rows={3} />
      </Form.Item>
      <Form.Item label="Telephone, mail, tax number, a line each" name="contact">
        <Input.TextArea rows={2} />
      </Form.Item>
      <Form.Item label="How to pay, a line each" name="payment">
        <Input.TextArea rows={2} />
      </Form.Item>
      {!isNew && (
        <Form.Item
          label="Foot of every message, a line each"
          name="foot"
          extra={<span className="quiet">Firm and register, address, why one gets the message and whom to ask.</span>}
        >
          <Input.TextArea rows={3} />
        </Form.Item>
      )}
    </>
  );
}
