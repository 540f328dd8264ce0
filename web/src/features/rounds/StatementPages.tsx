import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { getDocument, GlobalWorkerOptions, type PDFDocumentProxy } from "pdfjs-dist";
import worker from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { fileFrom } from "../../shared/api/client";
import { Waiting } from "../../shared/Waiting";
import styles from "./StatementPages.module.css";

GlobalWorkerOptions.workerSrc = worker;

/** The statement document, the very file that will be enclosed, page by page. */
export function StatementPages({
  address,
  name,
  version,
  over,
}: {
  address: string;
  name: string;
  version: string;
  /** What lies over a page. */
  over?: (page: number) => ReactNode;
}) {
  const file = useQuery({
    queryKey: ["parcel", address, version],
    queryFn: async () => {
      const document = await fileFrom(address);
      return getDocument({ data: await document.arrayBuffer() }).promise;
    },
    structuralSharing: false,
  });
  return (
    <Waiting query={file}>
      {(pdf) => <DocumentPages key={`${address} ${version}`} pdf={pdf} name={name} address={address} over={over} />}
    </Waiting>
  );
}

/** A document page by page. */
export function DocumentPages({
  pdf,
  name,
  address,
  over,
}: {
  pdf: PDFDocumentProxy;
  name: string;
  address: string;
  /** What lies over a page. */
  over?: (page: number) => ReactNode;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [page, setPage] = useState(1);
  const [text, setText] = useState("");
  const number = Math.min(page, pdf.numPages);
  // Behind a tab out of sight there is no width to be drawn in.
  const [isSeen, setIsSeen] = useState(false);
  useEffect(() => {
    const watch = new ResizeObserver(([frame]) => setIsSeen((frame?.contentRect.width ?? 0) > 0));
    if (frame.current) {
      watch.observe(frame.current);
    }
    return () => watch.disconnect();
  }, []);
  useEffect(() => {
    if (!isSeen) {
      return;
    }
    const asked = new AbortController();
    const draw = async () => {
      const leaf = await pdf.getPage(number);
      const target = canvas.current;
      asked.signal.throwIfAborted();
      if (!target || !frame.current) {
        return;
      }
      const natural = leaf.getViewport({ scale: 1 });
      const fit = frame.current.clientWidth / natural.width;
      const viewport = leaf.getViewport({ scale: fit * devicePixelRatio });
      target.width = viewport.width;
      target.height = viewport.height;
      target.style.width = "100%";
      const task = leaf.render({ canvas: target, viewport });
      asked.signal.addEventListener("abort", () => task.cancel());
      const content = await leaf.getTextContent();
      await task.promise;
      asked.signal.throwIfAborted();
      setText(content.items.map((i) => ("str" in i ? i.str : "")).join(" "));
    };
    // A drawing that is given up because another page was asked for is no failure.
    draw().catch(() => {
      if (!asked.signal.aborted) {
        setText("This page cannot be drawn.");
      }
    });
    return () => {
      asked.abort();
    };
  }, [pdf, number, isSeen]);
  return (
    <div>
      <div className={styles.statementHead}>
        <Button size="small" disabled={number <= 1} onClick={() => setPage(number - 1)} aria-label="Page before">
          ‹
        </Button>
        <span role="status">
          Page {number} of {pdf.numPages}
        </span>
        <Button
          size="small"
          disabled={number >= pdf.numPages}
          onClick={() => setPage(number + 1)}
          aria-label="Next page"
        >
          ›
        </Button>
        <a className="push" href={address} target="_blank" rel="noreferrer">
          {name}
        </a>
      </div>
      <div ref={frame} className={styles.statementPage}>
        <canvas ref={canvas} role="img" aria-label={text || `Page ${number} of the statement`} />
        {over?.(number)}
      </div>
    </div>
  );
}
