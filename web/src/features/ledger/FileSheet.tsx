import { useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useState, type RefObject } from "react";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { ColumnHead, type ColumnChange } from "./ColumnHead";
import { foldable } from "./folding";
import type { Column } from "./meanings";
import styles from "./FileSheet.module.css";
import { fileRows } from "./api";

type Intake = Schemas["IntakeView"];

/** A cell of the sheet. */
export interface Place {
  row: number;
  column: number;
}

const part = 200;
const rowHeight = 24;

/** The original file with every line of it, and above each column what it was taken for and why. */
export function FileSheet({
  ref: scroller,
  view,
  stamp,
  at,
  onMove,
  onOpen,
  onSet,
}: {
  ref: RefObject<HTMLDivElement | null>;
  view: Intake;
  /** Changes when the rows have to be fetched anew. */
  stamp: number;
  at: Place;
  onMove: (place: Place) => void;
  onOpen?: (() => void) | undefined;
  onSet?: ((column: Column, change: ColumnChange) => void) | undefined;
}) {
  const book = useBookId();
  const rows = useVirtualizer({
    count: view.lastRow,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 20,
    scrollPaddingStart: 84,
    scrollPaddingEnd: 24,
  });
  const shown = rows.getVirtualItems();
  const first = Math.floor((shown[0]?.index ?? 0) / part);
  const last = Math.floor((shown.at(-1)?.index ?? 0) / part);
  const parts = useQueries({
    queries: Array.from({ length: last - first + 1 }, (_, i) => ({
      queryKey: ["file-rows", book, view.id, stamp, first + i],
      queryFn: () => fileRows(book, view.id, (first + i) * part + 1, part),
      staleTime: Infinity,
    })),
  });
  const rowAt = (index: number) => parts[Math.floor(index / part) - first]?.data?.rows[index % part];
  const bad = badCells(view);
  const width = Math.max(view.columns.length, ...shown.map((s) => rowAt(s.index)?.cells.length ?? 0), 1);
  const [isUnfolded, setUnfolded] = useState(false);
  const spare = foldable(view);
  const isFolded = spare.length > 0 && !isUnfolded && !spare.includes(at.column);
  const columns = Array.from({ length: isFolded ? view.columns.length : width }, (_, i) => i).filter(
    (i) => !isFolded || !spare.includes(i),
  );
  useEffect(() => {
    if (at.row > 0) {
      rows.scrollToIndex(at.row - 1, { align: "auto" });
      scroller.current
        ?.querySelector(`#cell-${at.row}-${at.column}`)
        ?.scrollIntoView({ block: "nearest", inline: "nearest" });
    }
  }, [at, rows, scroller]);

  const onKeyDown = (e: React.KeyboardEvent) => {
    if (e.target !== e.currentTarget) {
      return;
    }
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / rowHeight) - 5);
    const moves: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [page, 0],
      PageUp: [-page, 0],
    };
    const move = moves[e.key];
    const limit = (n: number, most: number) => Math.max(0, Math.min(n, most));
    if (move) {
      e.preventDefault();
      onMove({
        row: 1 + limit(Math.max(at.row, 1) + move[0] - 1, view.lastRow - 1),
        column: columns[limit(columns.indexOf(at.column) + move[1], columns.length - 1)] ?? 0,
      });
    } else if (e.key === "Home" || e.key === "End") {
      e.preventDefault();
      onMove(
        e.ctrlKey
          ? { row: e.key === "Home" ? 1 : view.lastRow, column: at.column }
          : { row: at.row, column: (e.key === "Home" ? columns[0] : columns.at(-1)) ?? 0 },
      );
    } else if (e.key === "Enter" && onOpen) {
      e.preventDefault();
      onOpen();
    }
  };
  const before = shown[0]?.start ?? 0;
  const after = rows.getTotalSize() - (shown.at(-1)?.end ?? 0);
  return (
    <div
      className={styles.intakeSheet}
      ref={scroller}
      tabIndex={0}
      role="grid"
      aria-label="The file as it stands"
      aria-rowcount={view.lastRow + 1}
      aria-colcount={columns.length + 1}
      aria-activedescendant={at.row > 0 ? `cell-${at.row}-${at.column}` : undefined}
      onKeyDown={onKeyDown}
    >
      <table role="presentation">
        <thead role="rowgroup">
          <tr role="row">
            <th role="columnheader">Row</th>
            {columns.map((i) => {
              const column = view.columns[i];
              return (
                <th role="columnheader" key={i}>
                  {column && <ColumnHead view={view} column={column} onSet={onSet} />}
                </th>
              );
            })}
            {spare.length > 0 && (
              <th role="columnheader" className={styles.spare}>
                <button
                  type="button"
                  className="link"
                  aria-expanded={!isFolded}
                  onClick={() => {
                    setUnfolded(isFolded);
                    if (!isFolded && spare.includes(at.column)) {
                      onMove({ row: at.row, column: view.columns.findIndex((c) => !spare.includes(c.index)) });
                    }
                  }}
                >
                  {isFolded
                    ? `and ${spare.length} more columns, ${view.kind === "ledger" ? "kept for slots" : "kept on the card"}`
                    : `fold ${spare.length} columns`}
                </button>
              </th>
            )}
          </tr>
        </thead>
        <tbody role="rowgroup">
          <tr aria-hidden style={{ height: before }} />
          {shown.map((item) => {
            const row = rowAt(item.index);
            const number = item.index + 1;
            return (
              <tr
                key={number}
                role="row"
                aria-rowindex={number + 1}
                aria-current={number === at.row}
                className={rowClass(row, number === at.row)}
              >
                <th role="rowheader" title={row?.leftOut ?? undefined}>
                  {number}
                </th>
                {columns.map((i) => {
                  const put = row?.corrected[String(i)];
                  return (
                    <td
                      key={i}
                      id={`cell-${number}-${i}`}
                      role="gridcell"
                      aria-selected={number === at.row && i === at.column}
                      title={put === undefined ? row?.cells[i] : `In the file: ${row?.cells[i] ?? ""}`}
                      className={[
                        styles[
                          put === undefined
                            ? (bad.get(`${number}|${view.columns[i]?.heading ?? ""}`) ?? "")
                            : "corrected"
                        ],
                        isAmount(view.columns[i]) && row?.role !== "heading" && "figure",
                      ]
                        .filter(Boolean)
                        .join(" ")}
                      onClick={() => onMove({ row: number, column: i })}
                      onDoubleClick={onOpen}
                    >
                      {put ?? row?.cells[i]}
                    </td>
                  );
                })}
              </tr>
            );
          })}
          <tr aria-hidden style={{ height: Math.max(after, 0) }} />
        </tbody>
      </table>
    </div>
  );
}

function isAmount(column: Column | undefined): boolean {
  return column !== undefined && ["amount", "outstanding", "debit", "credit"].includes(column.meaning);
}

/** What a row is, and whether somebody was pointed to it. */
function rowClass(row: Schemas["FileRowView"] | undefined, isPointed: boolean): string {
  const role = styles[row?.leftOut != null ? "left-out" : (row?.role ?? "blank")];
  return [role, isPointed && styles.pointed].filter(Boolean).join(" ");
}

function badCells(view: Intake): Map<string, string> {
  const bad = new Map<string, string>();
  for (const group of view.findings) {
    for (const f of group.first) {
      if (f.severity !== "note" && f.column && bad.get(`${f.row}|${f.column}`) !== "error") {
        bad.set(`${f.row}|${f.column}`, f.severity);
      }
    }
  }
  return bad;
}
