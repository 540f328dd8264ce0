import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Alert, Checkbox, Segmented } from "antd";
import { useMemo, useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import { useSettled } from "../../shared/useSettled";
import { useWidth } from "../../shared/useWidth";
import { SampleBar } from "../layouts/SampleBar";
import { useSamples } from "../layouts/useLayouts";
import { previewWording } from "./api";
import { cutSubject, firstWords, kilobytes, readerPage } from "./readerPage";
import { Remarks } from "./Remarks";
import styles from "./Reader.module.css";

type Draft = Pick<Schemas["WordingRequest"], "name" | "language" | "subject" | "body">;

const typingPause = 250;
const widths = { phone: 360, desk: 760 };

/** The message as a customer would read it today, beside the words as they are being written. */
export function Reader({
  wording,
  draft: { name, language, subject, body },
  customer,
  onPick,
}: {
  wording: number;
  draft: Draft;
  customer: string | undefined;
  onPick: (customer: string) => void;
}) {
  const book = useBookId();
  const samples = useSamples();
  const [around, room] = useWidth<HTMLElement>();
  const [level, setLevel] = useState<number | null>(null);
  const [shown, setShown] = useState<"phone" | "desk" | "plain">("desk");
  const [isDark, setDark] = useState(false);
  const [hasPictures, setPictures] = useState(true);
  const settled = useSettled(
    useMemo(() => ({ name, language, subject, body, version: 0 }), [name, language, subject, body]),
    typingPause,
  );
  const preview = useQuery({
    queryKey: ["wording-preview", book, settled, customer, level],
    queryFn: () => previewWording(book, customer ?? "", level, settled),
    placeholderData: keepPreviousData,
    enabled: customer !== undefined,
    retry: false,
  });
  useKeys({
    p: () => setShown("phone"),
    k: () => setShown("desk"),
    t: () => setShown("plain"),
    d: () => setDark(!isDark),
  });
  if (samples.data?.length === 0) {
    return <p className="quiet">Take in a ledger, and the message to one of its customers shows here.</p>;
  }
  const made = preview.data;
  return (
    <section ref={around} aria-label="Reader" className={styles.reader}>
      <SampleBar customer={customer} level={level} onPick={onPick} onLevel={setLevel} />
      <div className={styles.looking}>
        <Segmented
          size="small"
          aria-label="Shown at"
          value={shown}
          onChange={setShown}
          options={[
            { value: "desk", label: "desk" },
            { value: "phone", label: "telephone" },
            { value: "plain", label: "plain text" },
          ]}
        />
        <Checkbox checked={isDark} onChange={(e) => setDark(e.target.checked)}>
          dark
        </Checkbox>
        <Checkbox checked={hasPictures} onChange={(e) => setPictures(e.target.checked)}>
          pictures
        </Checkbox>
        {made && made.errors.length === 0 && (
          <span className="quiet" title="Without the files that go with it">
            {kilobytes(made.bytes)}
          </span>
        )}
      </div>
      {preview.error && <Alert type="error" title={preview.error.message} />}
      {made?.errors.map((error) => (
        <Alert key={error} className="below-8" type="error" title={error} />
      ))}
      {made && made.emptySlots.length > 0 && (
        <Alert
          className="below-8"
          type="warning"
          title={`Empty for this customer: ${made.emptySlots.join(", ")}. Such a parcel waits for you.`}
        />
      )}
      {made && <Remarks wording={wording} remarks={made.remarks} isOfDraft />}
      {made && made.errors.length === 0 && (
        <>
          <p className={styles.inList} title={made.subject}>
            <b>{made.from}</b> {cutSubject(made.subject)} <small>{firstWords(made.plain)}</small>
          </p>
          {shown === "plain" ? (
            <pre className={styles.plain} tabIndex={0} aria-label="Plain text">
              {made.plain}
            </pre>
          ) : (
            <iframe
              title="Message as it is read"
              sandbox=""
              className={isDark ? `${styles.page} ${styles.dark}` : styles.page}
              style={{ width: widths[shown], zoom: Math.min(1, (room ?? widths[shown]) / widths[shown]) }}
              srcDoc={readerPage(made.message, { isDark, hasPictures })}
            />
          )}
        </>
      )}
    </section>
  );
}
