import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Form } from "antd";
import { useNavigate, useSearchParams } from "react-router";

import { useSession } from "../../shared/useBook";
import { Door } from "./Door";
import { NewPassword } from "./NewPassword";
import { SignInFields } from "./SignInFields";
import signInStyles from "./sign-in.module.css";
import { acceptInvitation, invitation, joinByInvitation, signIn } from "./api";

/** Where somebody who was invited to a book follows: with a new password, or as who they are. */
export function JoinPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const { session } = useSession();
  const [parameters] = useSearchParams();
  const key = parameters.get("key") ?? "";
  const invited = useQuery({
    queryKey: ["invited", key],
    queryFn: () => invitation(key),
    retry: false,
    staleTime: Infinity,
  });
  const goIn = async () => {
    await client.resetQueries({ predicate: (query) => query.queryKey[0] !== "invited" });
    await navigate("/");
  };
  const join = async ({ password }: { password: string }) => {
    await joinByInvitation({ key, password });
    await goIn();
  };
  const accept = async () => {
    await acceptInvitation({ key });
    await goIn();
  };
  if (!invited.data) {
    return (
      <main className={signInStyles.door}>{invited.error && <Alert type="error" title={invited.error.message} />}</main>
    );
  }
  const { name, firm, canSignIn } = invited.data;
  const title = `The book of ${firm}`;
  if (!canSignIn) {
    return (
      <Door<{ password: string }> title={title} onSend={join}>
        <p>You will sign in as {name}, with a password of your own.</p>
        <NewPassword name={name} act="Open the book" />
      </Door>
    );
  }
  if (session.data) {
    return (
      <Door title={title} onSend={accept}>
        <p>
          You were invited as {name}, and are signed in as {session.data.name}.
        </p>
        <Form.Item>
          <Button type="primary" htmlType="submit" block autoFocus>
            Open the book
          </Button>
        </Form.Item>
      </Door>
    );
  }
  return (
    <Door<{ name: string; password: string }>
      title={title}
      initial={{ name }}
      onSend={async (credentials) => {
        await signIn(credentials);
        await accept();
      }}
    >
      <p>You were invited as {name}. Sign in to open the book.</p>
      <SignInFields act="Sign in and open the book" />
    </Door>
  );
}
