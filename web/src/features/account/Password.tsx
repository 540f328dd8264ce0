import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button } from "antd";
import { useState } from "react";

import { PasswordField } from "../../shared/PasswordField";
import { changePassword } from "./api";

/** Changes the password of the person who is signed in; everywhere else they are signed out. */
export function Password({ name }: { name: string }) {
  const client = useQueryClient();
  const { message } = App.useApp();
  const [current, setCurrent] = useState("");
  const [password, setPassword] = useState("");
  const changing = useMutation({
    mutationFn: () => changePassword({ current, password }),
    onSuccess: async () => {
      setCurrent("");
      setPassword("");
      message.success("Password changed. Wherever else you were signed in, you are signed out.");
      await client.invalidateQueries({ queryKey: ["sessions"] });
    },
  });
  return (
    <section className="sheet" aria-label="Password">
      <h2>Password</h2>
      {changing.error && <Alert className="below-8" type="error" title={changing.error.message} />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          changing.mutate();
        }}
      >
        <input type="text" hidden readOnly autoComplete="username" value={name} />
        <label>
          Current password
          <PasswordField autoComplete="current-password" value={current} onChange={(e) => setCurrent(e.target.value)} />
        </label>
        <label>
          New password, at least 10 characters
          <PasswordField autoComplete="new-password" value={password} onChange={(e) => setPassword(e.target.value)} />
        </label>
        <Button
          type="primary"
          htmlType="submit"
          disabled={current === "" || password.length < 10}
          loading={changing.isPending}
        >
          Change password
        </Button>
      </form>
    </section>
  );
}
