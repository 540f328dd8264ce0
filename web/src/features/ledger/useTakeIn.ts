import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App } from "antd";
import { useEffect, useEffectEvent } from "react";
import { upload, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useGoOn } from "../../shared/useGoOn";
import { served } from "../../shared/served";
import { takeInPasted } from "./api";

/** The endings of files that can be taken in. */
export const fileEndings = ".csv,.txt,.tsv,.xlsx,.xls,.xlsb,.ods";

/** Takes a file in, chosen, dropped or pasted as cells from a spreadsheet, and goes on to look at it. */
export function useTakeIn(kind: Schemas["IntakeKind"]) {
  const book = useBookId();
  const goOn = useGoOn();
  const { message } = App.useApp();
  const client = useQueryClient();
  const taking = useMutation({
    mutationFn: (what: File | string) =>
      typeof what === "string"
        ? takeInPasted(book, { text: what, kind })
        : upload<Schemas["BegunIntake"]>(served(`/api/books/${book}/intakes?kind=${kind}`), what),
    onSuccess: async (begun) => {
      await client.invalidateQueries({ queryKey: ["intakes", book] });
      if (!(await goOn(`/books/${book}/ledger/${begun.id}`))) {
        message.info("The file is read. It waits under Ledger to be looked at.");
      }
    },
  });
  const onPaste = useEffectEvent((event: ClipboardEvent) => {
    const target = event.target as HTMLElement;
    const text = event.clipboardData?.getData("text/plain") ?? "";
    const file = event.clipboardData?.files[0];
    if (/^(INPUT|TEXTAREA)$/.test(target.tagName) || target.isContentEditable) {
      return;
    }
    if (file && !text) {
      taking.mutate(file);
    } else if (text.includes("\n")) {
      event.preventDefault();
      taking.mutate(text);
    }
  });
  useEffect(() => {
    const listener = (event: ClipboardEvent) => onPaste(event);
    addEventListener("paste", listener);
    return () => removeEventListener("paste", listener);
  }, []);
  return taking;
}
