import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert } from "antd";
import { useNavigate, useSearchParams } from "react-router";

import { Door } from "./Door";
import { NewPassword } from "./NewPassword";
import signInStyles from "./sign-in.module.css";
import { followReset, passwordReset } from "./api";

/** Where somebody who forgot their password chooses another. */
export function ResetPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [parameters] = useSearchParams();
  const key = parameters.get("key") ?? "";
  const reset = useQuery({
    queryKey: ["reset", key],
    queryFn: () => passwordReset(key),
    retry: false,
    staleTime: Infinity,
  });
  const follow = async ({ password }: { password: string }) => {
    await followReset({ key, password });
    await client.resetQueries({ predicate: (query) => query.queryKey[0] !== "reset" });
    await navigate("/");
  };
  if (!reset.data) {
    return (
      <main className={signInStyles.door}>{reset.error && <Alert type="error" title={reset.error.message} />}</main>
    );
  }
  return (
    <Door<{ password: string }> title={`A new password for ${reset.data.name}`} onSend={follow}>
      <p>Wherever you are signed in, you are signed out when it is saved.</p>
      <NewPassword name={reset.data.name} act="Save password" />
    </Door>
  );
}
