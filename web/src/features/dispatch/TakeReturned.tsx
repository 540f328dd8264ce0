import { useQueryClient } from "@tanstack/react-query";
import { App, Button, Modal } from "antd";
import { useRef, useState } from "react";
import { api, must, type Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { ReturnedTable } from "./ReturnedTable";

type Taken = Schemas["ReturnedView"];

/** Takes in mail that came back, as files, and says what became of each. */
export function TakeReturned() {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const input = useRef<HTMLInputElement>(null);
  const [taken, setTaken] = useState<Taken[]>();
  const take = async (files: File[]) => {
    const form = new FormData();
    files.forEach((file) => form.append("files", file));
    try {
      setTaken(
        await must(
          api.POST("/api/books/{book}/returned", {
            params: { path: { book } },
            body: form as never,
            bodySerializer: (body: unknown) => body as FormData,
          }),
        ),
      );
      await client.invalidateQueries();
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
    }
  };
  return (
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        Take in what came back…
      </Button>
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
