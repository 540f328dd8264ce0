import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Form, Input } from "antd";
import { useNavigate, useSearchParams } from "react-router";
import { api, must } from "../../shared/api/client";
import { Door } from "./Door";

/** Where somebody who was invited to a book chooses a password. */
export function JoinPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [parameters] = useSearchParams();
  const key = parameters.get("key") ?? "";
  const invited = useQuery({
    queryKey: ["invited", key],
    queryFn: () => must(api.GET("/api/invitations/{key}", { params: { path: { key } } })),
    retry: false,
    staleTime: Infinity,
  });
  const join = async ({ password }: { password: string }) => {
    await must(api.POST("/api/invitations/join", { body: { key, password } }));
    await client.resetQueries({ predicate: (query) => query.queryKey[0] !== "invited" });
    await navigate("/");
  };
  if (!invited.data) {
    return <main className="door">{invited.error && <Alert type="error" title={invited.error.message} />}</main>;
  }
  return (
    <Door<{ password: string }> title={`The book of ${invited.data.firm}`} onSend={join}>
      <p>You will sign in as {invited.data.name}, with a password of your own.</p>
      <input type="text" hidden readOnly autoComplete="username" value={invited.data.name} />
      <Form.Item
        label="A password of at least 10 characters"
        name="password"
        rules={[{ required: true, min: 10, message: "The password needs at least 10 characters." }]}
      >
        <Input.Password autoFocus autoComplete="new-password" />
      </Form.Item>
      <Form.Item>
        <Button type="primary" htmlType="submit" block>
          Open the book
        </Button>
      </Form.Item>
    </Door>
  );
}
