import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Input } from "antd";
import { useState } from "react";
import { keepSignature } from "./api";

/** The lines with which the person who is signed in signs the messages of their rounds. */
export function Signature({ signature }: { signature: string }) {
  const client = useQueryClient();
  const { message } = App.useApp();
  const [text, setText] = useState(signature);
  const saving = useMutation({
    mutationFn: () => keepSignature({ signature: text }),
    onSuccess: async () => {
      message.success("Signature saved.");
      await client.invalidateQueries();
    },
  });
  return (
    <section className="sheet" aria-label="Signature">
      <h2>Signature</h2>
      <p className="quiet">It stands in the messages of rounds that you make, over the lines of the sender.</p>
      {saving.error && <Alert className="below-8" type="error" title={saving.error.message} />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          saving.mutate();
        }}
      >
        <label>
          Your lines
          <Input.TextArea
            rows={3}
            maxLength={1_000}
            placeholder="none"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <Button htmlType="submit" disabled={text === signature} loading={saving.isPending}>
          Save signature
        </Button>
      </form>
    </section>
  );
}
