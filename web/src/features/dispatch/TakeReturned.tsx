import { useQueryClient } from "@tanstack/react-query";
import { App, Button, Modal } from "antd";
import { useRef, useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { takeInReturned } from "./api";
import { ReturnedTable } from "./ReturnedTable";
import { UnclearReturned, useUnclear } from "./UnclearReturned";

type Taken = Schemas["TakenReturn"];

/** Takes in mail that came back, as files, and says what became of each. */
export function TakeReturned() {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const input = useRef<HTMLInputElement>(null);
  const [taken, setTaken] = useState<Taken[]>();
  const [deciding, setDeciding] = useState(false);
  const unclear = useUnclear().data ?? [];
  const take = async (files: File[]) => {
    try {
      setTaken(await takeInReturned(book, files));
      await client.invalidateQueries();
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
    }
  };
  return (
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        Add returned mail…
      </Button>
      {unclear.length > 0 && (
        <Button size="small" onClick={() => setDeciding(true)}>
          {unclear.length} unclear
        </Button>
      )}
      <Modal
        title={`${count(unclear.length, "message")} may be about a failed delivery`}
        open={deciding && unclear.length > 0}
        footer={null}
        width={760}
        onCancel={() => setDeciding(false)}
      >
        <UnclearReturned messages={unclear} />
      </Modal>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept=".eml,.mbox,message/rfc822,application/mbox"
        aria-label="Mail that came back"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length > 0) {
            void take(files);
          }
        }}
      />
      <Modal
        title={taken && `${count(taken.length, "message")} taken in`}
        open={taken !== undefined}
        footer={null}
        width={720}
        onCancel={() => setTaken(undefined)}
      >
        {taken && <ReturnedTable taken={taken} />}
      </Modal>
    </>
  );
}
