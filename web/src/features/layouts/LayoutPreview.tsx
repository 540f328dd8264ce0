import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Alert, App, Button, Select } from "antd";
import { getDocument } from "pdfjs-dist";
import { useEffect, useState } from "react";
import { fileFrom } from "../../shared/api/client";
import { useBook, useBookId } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import { DocumentPages } from "../rounds/StatementPages";
import { useSamples, type Layout } from "./useLayouts";
import { served } from "../../shared/served";
import layoutsStyles from "./layouts.module.css";
import styles from "./LayoutPreview.module.css";
import { customerPart } from "../customers/api";

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
  const book = useBookId();
  const levels = useBook().data?.rules.levels ?? [];
  const [find, setFind] = useState("");
  const [level, setLevel] = useState<number | null>(null);
  const samples = useSamples();
  const found = useQuery({
    queryKey: ["customers", book, "for a preview", find],
    queryFn: () => customerPart(book, { search: find, count: 20 }),
    placeholderData: keepPreviousData,
  });
  const [longest, shortest] = samples.data ?? [];
  const settled = useSettled(layout);
  useKeys({
    l: () => longest && onPick(longest.customer),
    s: () => shortest && onPick(shortest.customer),
  });
  if (samples.data?.length === 0) {
    return <p className="quiet">Take in a ledger, and a document for one of its customers shows here.</p>;
  }
  return (
    <section aria-label="Preview" className={styles.layoutPreview}>
      <div className={`${layoutsStyles.layoutLine} below-8`}>
        <Select
          className="width-210"
          size="small"
          aria-label="Customer in the preview"
          popupMatchSelectWidth={false}
          showSearch={{ filterOption: false, onSearch: setFind }}
          value={customer}
          options={(found.data?.customers ?? [])
            .map((c) => ({ value: c.key, label: c.name }))
            .concat(
              (samples.data ?? [])
                .filter((s) => !found.data?.customers.some((c) => c.key === s.customer))
                .map((s) => ({ value: s.customer, label: s.name })),
            )}
          onChange={onPick}
        />
        <Button size="small" onClick={() => longest && onPick(longest.customer)}>
          longest <kbd>L</kbd>
        </Button>
        <Button size="small" onClick={() => shortest && onPick(shortest.customer)}>
          shortest <kbd>S</kbd>
        </Button>
        <Select
          size="small"
          aria-label="Preview as"
          popupMatchSelectWidth={false}
          value={level ?? 0}
          options={[
            { value: 0, label: "statement" },
            ...levels.map((_, i) => ({ value: i + 1, label: `reminder ${i + 1}` })),
          ]}
          onChange={(n: number) => setLevel(n === 0 ? null : n)}
        />
        {customer !== undefined && settled.letter && (
          <FilledLetter layout={settled} customer={customer} level={level} />
        )}
      </div>
      {customer !== undefined && <Sheets layout={settled} customer={customer} level={level} />}
    </section>
  );
}

/** The layout once the person has paused. */
function useSettled(layout: Layout): Layout {
  const [settled, setSettled] = useState(layout);
  useEffect(() => {
    const waiting = setTimeout(() => setSettled(layout), typingPause);
    return () => clearTimeout(waiting);
  }, [layout]);
  return settled;
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
