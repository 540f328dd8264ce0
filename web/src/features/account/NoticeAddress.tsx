import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Input } from "antd";
import { useState } from "react";

import { keepNoticeAddress } from "./api";

/** Where the person who is signed in is told that a round has ended. */
export function NoticeAddress({ address }: { address: string }) {
  const client = useQueryClient();
  const { message } = App.useApp();
  const [text, setText] = useState(address);
  const saving = useMutation({
    mutationFn: () => keepNoticeAddress({ address: text }),
    onSuccess: async () => {
      message.success("Address saved.");
      await client.invalidateQueries({ queryKey: ["session"] });
    },
  });
  return (
    <section className="sheet" aria-label="Address for notices">
      <h2>Address for notices</h2>
      <p className="quiet">When a round that you released has ended, a message goes here, from the round’s sender.</p>
      {saving.error && <Alert className="below-8" type="error" title={saving.error.message} />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          saving.mutate();
        }}
      >
        <label>
          Your e-mail address
          <Input placeholder="none: only a notice here" value={text} onChange={(e) => setText(e.target.value)} />
        </label>
        <Button htmlType="submit" disabled={text === address} loading={saving.isPending}>
          Save address
        </Button>
      </form>
    </section>
  );
}
