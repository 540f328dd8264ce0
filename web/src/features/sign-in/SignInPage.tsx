import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { Door } from "./Door";
import { SignInFields } from "./SignInFields";
import signInStyles from "./sign-in.module.css";
import { firstRunNeeded, signIn } from "./api";

export function SignInPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const firstRun = useQuery({ queryKey: ["first-run"], queryFn: firstRunNeeded });
  const enter = async (credentials: Schemas["Credentials"]) => {
    await signIn(credentials);
    await client.resetQueries();
    await navigate("/");
  };
  if (firstRun.data?.needed) {
    return (
      <main className={signInStyles.door}>
        <p>Nobody can sign in yet. Open the address that Rendal printed when it was started; it carries a key.</p>
      </main>
    );
  }
  return (
    <Door<Schemas["Credentials"]> title="Sign in" onSend={enter}>
      <SignInFields act="Sign in" />
    </Door>
  );
}
