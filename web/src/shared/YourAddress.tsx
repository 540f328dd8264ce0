import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Input, Modal } from "antd";
import { useState } from "react";
import { api, must } from "./api/client";

/** Where the person who is signed in is told that a round has ended. */
export function YourAddress({ address, onClose }: { address: string; onClose: () => void }) {
  const client = useQueryClient();
  const [text, setText] = useState(address);
  const keeping = useMutation({
    mutationFn: () => must(api.PUT("/api/session/address", { body: { address: text } })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["session"] });
      onClose();
    },
  });
  return (
    <Modal title="Your address" open footer={null} onCancel={onClose} width={440}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          keeping.mutate();
        }}
      >
        <p>When a round that you released has ended, a message goes here, from the round’s sender.</p>
        {keeping.error && <Alert type="error" title={keeping.error.message} style={{ marginBottom: 8 }} />}
        <Input
          aria-label="Your e-mail address"
          placeholder="none: only a notice here"
          value={text}
          onChange={(e) => setText(e.target.value)}
          autoFocus
        />
        <p style={{ textAlign: "right", margin: "12px 0 0" }}>
          <Button type="primary" htmlType="submit" loading={keeping.isPending}>
            Keep it
          </Button>
        </p>
      </form>
    </Modal>
  );
}
