import { useMutation } from "@tanstack/react-query";
import { Alert, Button, Input } from "antd";
import { useState } from "react";

import { useClock } from "../../shared/useClock";
import { basePath } from "../../shared/served";
import { letIn } from "./api";

/** Makes an address by which somebody who forgot their password chooses another; for who administers the installation. */
export function LetIn() {
  const [name, setName] = useState("");
  const { moment } = useClock();
  const making = useMutation({
    mutationFn: () => letIn({ name }),
    onSuccess: () => setName(""),
  });
  return (
    <section className="sheet" aria-label="Reset a password">
      <h2>Reset a password</h2>
      <p className="quiet">
        You administer this installation. For somebody who forgot their password, make an address by which they choose
        another.
      </p>
      {making.error && <Alert className="below-8" type="error" title={making.error.message} />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          making.mutate();
        }}
      >
        <label>
          Name they sign in with
          <Input value={name} maxLength={100} onChange={(e) => setName(e.target.value)} />
        </label>
        <Button htmlType="submit" disabled={name.trim() === ""} loading={making.isPending}>
          Create link
        </Button>
      </form>
      {making.data && (
        <div className="above-8" role="status">
          <p>
            Pass this on to {making.data.name}. It can be used once, until {moment(making.data.goodUntil)}, and is not
            shown again.
          </p>
          <Input
            readOnly
            aria-label="Address to pass on"
            value={`${window.location.origin}${basePath}/reset?key=${making.data.key}`}
            onFocus={(e) => e.target.select()}
          />
        </div>
      )}
    </section>
  );
}
