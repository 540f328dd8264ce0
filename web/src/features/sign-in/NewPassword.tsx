import { Button, Form } from "antd";
import { PasswordField } from "../../shared/PasswordField";

/** The field for a password that somebody chooses, with the button under it. */
export function NewPassword({ name, act }: { name: string; act: string }) {
  return (
    <>
      <input type="text" hidden readOnly autoComplete="username" value={name} />
      <Form.Item
        label="A password of at least 10 characters"
        name="password"
        rules={[{ required: true, min: 10, message: "The password needs at least 10 characters." }]}
      >
        <PasswordField autoFocus autoComplete="new-password" />
      </Form.Item>
      <Form.Item>
        <Button type="primary" htmlType="submit" block>
          {act}
        </Button>
      </Form.Item>
    </>
  );
}
