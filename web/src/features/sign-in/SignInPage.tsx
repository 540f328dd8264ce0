import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, must, type Schemas } from "../../shared/api/client";
import { Door } from "./Door";
import { SignInFields } from "./SignInFields";
import signInStyles from "./sign-in.module.css";

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
      <main className={signInStyles.door}>
        <p>Nobody can sign in yet. Open the address that Rendal printed when it was started; it carries a key.</p>
      </main>
    );
  }
  return (
    <Door<Schemas["Credentials"]> title="Sign in" onSend={signIn}>
      <SignInFields act="Sign in" />
    </Door>
  );
}
