import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Alert, App, Button } from "antd";
import { getDocument } from "pdfjs-dist";
import { useEffect, useState } from "react";
import { fileFrom } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useSettled } from "../../shared/useSettled";
import { DocumentPages } from "../rounds/StatementPages";
import { useSamples, type Layout } from "./useLayouts";
import { served } from "../../shared/served";
import { SampleBar } from "./SampleBar";
import styles from "./LayoutPreview.module.css";

const typingPause = 150;

/** The very document that a customer would get by the layout as it is being edited. */
export function LayoutPreview({
  layout,
  customer,
  onPick,
}: {
  layout: Layout;
  customer: string | undefined;
  onPick: (customer: string) => void;
}) {
  const [level, setLevel] = useState<number | null>(null);
  const samples = useSamples();
  const settled = useSettled(layout, typingPause);
  if (samples.data?.length === 0) {
    return <p className="quiet">Take in a ledger, and a document for one of its customers shows here.</p>;
  }
  return (
    <section aria-label="Preview" className={styles.layoutPreview}>
      <SampleBar customer={customer} level={level} onPick={onPick} onLevel={setLevel}>
        {customer !== undefined && settled.letter && (
          <FilledLetter layout={settled} customer={customer} level={level} />
        )}
      </SampleBar>
      {customer !== undefined && <Sheets layout={settled} customer={customer} level={level} />}
    </section>
  );
}

/** The filled letter, to look at in a word processor. */
function FilledLetter({ layout, customer, level }: { layout: Layout; customer: string; level: number | null }) {
  const book = useBookId();
  const { message } = App.useApp();
  const query = new URLSearchParams({ customer, form: "docx", ...(level === null ? {} : { level: String(level) }) });
  const save = async () => {
    try {
      const link = document.createElement("a");
      link.href = URL.createObjectURL(
        await fileFrom(served(`/api/books/${book}/layouts/preview?${query.toString()}`), layout),
      );
      link.download = `${customer} ${layout.letter?.fileName ?? "letter.docx"}`;
      link.click();
      URL.revokeObjectURL(link.href);
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
    }
  };
  return (
    <Button size="small" onClick={() => void save()}>
      Filled, as DOCX
    </Button>
  );
}

function Sheets({ layout, customer, level }: { layout: Layout; customer: string; level: number | null }) {
  const book = useBookId();
  const document = useQuery({
    queryKey: ["layout preview", book, customer, level, layout],
    queryFn: async ({ signal }) => {
      const query = new URLSearchParams({ customer, ...(level === null ? {} : { level: String(level) }) });
      const file = await fileFrom(served(`/api/books/${book}/layouts/preview?${query.toString()}`), layout, signal);
      return { pdf: await getDocument({ data: await file.arrayBuffer() }).promise, address: URL.createObjectURL(file) };
    },
    placeholderData: keepPreviousData,
    structuralSharing: false,
    retry: false,
    gcTime: 0,
  });
  const address = document.data?.address;
  useEffect(
    () => () => {
      if (address) {
        URL.revokeObjectURL(address);
      }
    },
    [address],
  );
  return (
    <>
      {document.error && <Alert className="below-8" type="error" title={document.error.message} />}
      {document.data && <DocumentPages pdf={document.data.pdf} name="as a file" address={document.data.address} />}
    </>
  );
}
