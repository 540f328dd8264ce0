import { useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Select } from "antd";
import { useEffect, type RefObject } from "react";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { fields, meanings, type Column, type Field, type Meaning } from "./meanings";
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
        column: limit(at.column + move[1], width - 1),
      });
    } else if (e.key === "Home" || e.key === "End") {
      e.preventDefault();
      onMove(
        e.ctrlKey
          ? { row: e.key === "Home" ? 1 : view.lastRow, column: at.column }
          : { row: at.row, column: e.key === "Home" ? 0 : width - 1 },
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
      aria-colcount={width + 1}
      aria-activedescendant={at.row > 0 ? `cell-${at.row}-${at.column}` : undefined}
      onKeyDown={onKeyDown}
    >
      <table role="presentation">
        <thead role="rowgroup">
          <tr role="row">
            <th role="columnheader">Row</th>
            {Array.from({ length: width }, (_, i) => {
              const column = view.columns[i];
              return (
                <th role="columnheader" key={i}>
                  {column && <ColumnHead view={view} column={column} onSet={onSet} />}
                </th>
              );
            })}
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
                {Array.from({ length: width }, (_, i) => {
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

/** A change of how one column is read. */
export type ColumnChange = Partial<Pick<Column, "meaning" | "field" | "mark" | "order" | "unsignedCredits">>;

function ColumnHead({
  view,
  column,
  onSet,
}: {
  view: Intake;
  column: Column;
  onSet?: ((column: Column, change: ColumnChange) => void) | undefined;
}) {
  const label = `What “${column.heading}” is`;
  const other = column.others?.[0];
  return (
    <>
      {view.kind === "ledger" ? (
        <Select<Meaning>
          className="whole-width"
          size="small"
          disabled={!onSet}
          value={column.meaning}
          options={meanings}
          popupMatchSelectWidth={false}
          aria-label={label}
          onChange={(meaning) => onSet?.(column, { meaning })}
        />
      ) : (
        <Select<Field>
          className="whole-width"
          size="small"
          disabled={!onSet}
          value={column.field}
          options={fields}
          popupMatchSelectWidth={false}
          aria-label={label}
          onChange={(field) => onSet?.(column, { field })}
        />
      )}
      <small>
        {column.confidence === "likely" && <b>likely · </b>}
        {column.reason}
        {onSet && column.confidence !== "sure" && other && (
          <>
            {" · "}
            <button type="button" className="link" onClick={() => onSet(column, { meaning: other })}>
              {meanings.find((m) => m.value === other)?.label} instead
            </button>
          </>
        )}
        {column.notation && (
          <>
            {" · "}
            {onSet ? (
              <button type="button" className="link" title="Reverse" onClick={() => onSet(column, turned(column))}>
                {decided.includes(column.notation) ? `${notation(column)}, ${column.notation}` : column.notation}
              </button>
            ) : (
              column.notation
            )}
          </>
        )}
        {column.unsignedCredits && " · credits without sign"}
      </small>
    </>
  );
}

// Who decided, where the values of the column did not.
const decided = ["set by you", "as last time"];

function turned(column: Column): ColumnChange {
  return column.mark
    ? { mark: column.mark === "point" ? "comma" : "point" }
    : {
        order:
          column.order === "day-first" ? "month-first" : column.order === "month-first" ? "year-first" : "day-first",
      };
}

function notation(column: Column): string {
  const words = {
    point: "decimal point",
    comma: "decimal comma",
    "day-first": "day first",
    "month-first": "month first",
    "year-first": "year first",
  };
  const what = column.mark ?? column.order;
  return what ? words[what] : "";
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
