import { useQueryClient } from "@tanstack/react-query";
import { Button, Form, Input } from "antd";
import { useNavigate, useSearchParams } from "react-router";

import { Door } from "./Door";
import { bookOf, emptyFirm, FirmFields, type FirmText } from "./FirmFields";
import { PasswordField } from "../../shared/PasswordField";
import { beginFirst } from "./api";

interface FirstRun extends FirmText {
  name: string;
  password: string;
}

export function FirstRunPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [parameters] = useSearchParams();
  const begin = async (text: FirstRun) => {
    await beginFirst({
      key: parameters.get("key") ?? "",
      name: text.name,
      password: text.password,
      book: bookOf(text),
    });
    await client.resetQueries();
    await navigate("/");
  };
  return (
    <Door<FirstRun> title="The first book" initial={emptyFirm} onSend={begin}>
      <Form.Item
        label="Your name, to sign in with"
        name="name"
        rules={[{ required: true, message: "Your name is missing." }]}
      >
        <Input autoFocus autoComplete="username" />
      </Form.Item>
      <Form.Item
        label="A password of at least 10 characters"
        name="password"
        rules={[{ required: true, min: 10, message: "The password needs at least 10 characters." }]}
      >
        <PasswordField autoComplete="new-password" />
      </Form.Item>
      <FirmFields />
      <Form.Item>
        <Button type="primary" htmlType="submit" block>
          Begin
        </Button>
      </Form.Item>
    </Door>
  );
}
