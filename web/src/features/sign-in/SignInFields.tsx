import { Button, Form, Input } from "antd";
import { PasswordField } from "../../shared/PasswordField";

/** A name and its password, with the button under them. */
export function SignInFields({ act }: { act: string }) {
  return (
    <>
      <Form.Item label="Name" name="name" rules={[{ required: true, message: "Your name is missing." }]}>
        <Input autoFocus autoComplete="username" />
      </Form.Item>
      <Form.Item label="Password" name="password" rules={[{ required: true, message: "The password is missing." }]}>
        <PasswordField autoComplete="current-password" />
      </Form.Item>
      <Form.Item>
        <Button type="primary" htmlType="submit" block>
          {act}
        </Button>
      </Form.Item>
    </>
  );
}
