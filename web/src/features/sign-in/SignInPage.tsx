import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Form, Input } from "antd";
import { useNavigate } from "react-router";
import { api, must, type Schemas } from "../../shared/api/client";
import { Door } from "./Door";

export function SignInPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const firstRun = useQuery({ queryKey: ["first-run"], queryFn: () => must(api.GET("/api/first-run")) });
  const signIn = async (credentials: Schemas["Credentials"]) => {
    await must(api.POST("/api/session", { body: credentials }));
    await client.resetQueries();
    await navigate("/");
  };
  if (firstRun.data?.needed) {
    return (
      <main className="door">
        <p>Nobody can sign in yet. Open the address that Rendal printed when it was started; it carries a key.</p>
      </main>
    );
  }
  return (
    <Door<Schemas["Credentials"]> title="Sign in" onSend={signIn}>
      <Form.Item label="Name" name="name" rules={[{ required: true, message: "Your name is missing." }]}>
        <Input autoFocus autoComplete="username" />
      </Form.Item>
      <Form.Item label="Password" name="password" rules={[{ required: true, message: "The password is missing." }]}>
        <Input.Password autoComplete="current-password" />
      </Form.Item>
      <Form.Item>
        <Button type="primary" htmlType="submit" block>
          Sign in
        </Button>
      </Form.Item>
    </Door>
  );
}
