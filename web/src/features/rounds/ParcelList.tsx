import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, type ReactNode } from "react";
import { AgeBar } from "../../shared/AgeBar";
import { count, figure, money } from "../../shared/figure";
import { Shape } from "../../shared/Shape";
import type { LeftOut, Parcel, Round } from "./useRound";
import { placesIn, rowAt, rowCount, rowOf } from "./listRows";
import { canBeMarked, type LeftMarks } from "./useLeftMarks";
import type { Marks } from "./useMarks";
import type { ParcelList as List } from "./useParcelList";
import { canBePutIn, groupWords, ownWords, reasonWords } from "./words";
import roundsStyles from "./rounds.module.css";
import styles from "./ParcelList.module.css";

const rowHeight = 24;
const headHeight = 30;

/** The sheet of the round: a row for each parcel, in groups by status, then what is left out with its reason. */
export function ParcelList({
  round,
  list,
  labels,
  leftOpen,
  find,
  finder,
  onPick,
  onLeftOpen,
  onPutBack,
  onPutIn,
  onAccount,
  marks,
  leftMarks,
}: {
  round: Round;
  list: List;
  marks: Marks;
  leftMarks: LeftMarks;
  labels: string[];
  leftOpen: boolean;
  find: string;
  finder: ReactNode;
  onPick: (customer: string) => void;
  onLeftOpen: () => void;
  onPutBack: ((customer: string) => void) | undefined;
  onPutIn: (customer: string, name: string) => void;
  onAccount: (customer: string) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const main = round.proof[0]?.currency ?? "";
  const { groups, place, see } = list;
  const shape = { groups, leftOut: find ? 0 : round.leftOutCount, leftOpen };
  const rows = rowCount(shape);
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 20,
    // The headings stay above the rows and take their height from what is in sight.
    scrollPaddingEnd: headHeight,
  });
  const at = place === undefined ? -1 : rowOf(groups, place);
  const leftAt = rowCount({ groups, leftOut: 0, leftOpen: false });
  useEffect(() => {
    if (at >= 0) {
      virtual.scrollToIndex(at, { align: "auto" });
    }
  }, [at, virtual]);
  useEffect(() => {
    if (leftOpen) {
      virtual.scrollToIndex(leftAt, { align: "start" });
    }
  }, [leftOpen, leftAt, virtual]);
  const items = virtual.getVirtualItems();
  const sight = placesIn(shape, items[0]?.index ?? 0, items.at(-1)?.index ?? -1);
  const [parcelsFrom, parcelsTo] = sight.parcels;
  const [leftFrom, leftTo] = sight.left;
  useEffect(
    () => see({ parcels: [parcelsFrom, parcelsTo], left: [leftFrom, leftTo] }),
    [see, parcelsFrom, parcelsTo, leftFrom, leftTo],
  );
  return (
    <div
      className={styles.parcels}
      ref={scroller}
      tabIndex={0}
      role="region"
      aria-label="Parcels"
      onKeyDown={(e) => {
        if (e.key === " " && !(e.target instanceof HTMLInputElement) && list.shown) {
          // In the list it marks, whatever has the focus there.
          e.preventDefault();
          marks.toggle(list.shown, place);
        }
      }}
    >
      <div role="table" aria-label="Parcels of the round" aria-rowcount={rows + 1}>
        <div role="row" aria-rowindex={1} className={`${styles.parcelRow} ${styles.parcelHead}`}>
          <span role="columnheader">
            <MarkBox
              label={find ? "Mark all that are found" : "Mark all parcels"}
              isMarked={marks.count > 0}
              isMixed={marks.count > 0 && marks.count < list.count}
              onMark={() => (marks.count > 0 ? marks.none() : marks.all(find))}
            />
          </span>
          <span role="columnheader">
            <span className="visually-hidden">State</span>
          </span>
          <span role="columnheader" aria-label="Customer">
            {finder}
          </span>
          <span role="columnheader">Note</span>
          <span role="columnheader" className="figure">
            Items
          </span>
          <span role="columnheader">Age</span>
          <span role="columnheader" className="figure">
            Open {main}
          </span>
        </div>
        <div role="rowgroup" className={styles.rows} style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const row = rowAt(shape, item.index);
            if (!row) {
              return null;
            }
            const style = { transform: `translateY(${item.start}px)` };
            if (row.kind === "group") {
              return (
                <div
                  key={`group ${row.status}`}
                  role="row"
                  aria-rowindex={item.index + 2}
                  className={`${styles.parcelRow} ${styles.parcelGroup}`}
                  style={style}
                >
                  <span role="cell" className={styles.groupName}>
                    {row.status === "left-out" && leftOpen && onPutBack && (
                      <MarkBox
                        label="Mark all left out who can be put in"
                        isMarked={leftMarks.count > 0}
                        isMixed={leftMarks.count > 0}
                        onMark={() => (leftMarks.count > 0 ? leftMarks.none() : leftMarks.all())}
                      />
                    )}
                    {row.status === "left-out" ? (
                      <button type="button" className="link" aria-expanded={leftOpen} onClick={onLeftOpen}>
                        {groupWords[row.status]} · {row.count}
                      </button>
                    ) : (
                      `${groupWords[row.status] ?? row.status} · ${row.count}`
                    )}
                  </span>
                  <span role="cell" className="figure">
                    {find ? "" : sumsOf(round, row.status, main)}
                  </span>
                </div>
              );
            }
            const parcel = row.kind === "parcel" ? list.parcelAt(row.place) : undefined;
            if (parcel) {
              return (
                <ParcelRow
                  key={parcel.customer}
                  index={item.index + 2}
                  parcel={parcel}
                  main={main}
                  labels={labels}
                  isShown={row.kind === "parcel" && row.place === place}
                  isMarked={marks.has(parcel.id)}
                  onMark={(isRange) =>
                    row.kind === "parcel" && (isRange ? marks.to(row.place, find) : marks.toggle(parcel, row.place))
                  }
                  style={style}
                  onPick={onPick}
                />
              );
            }
            const left = row.kind === "left" ? list.leftAt(row.place) : undefined;
            return left === undefined ? (
              <div
                key={`${row.kind} ${row.place}`}
                role="row"
                aria-rowindex={item.index + 2}
                className={`${styles.parcelRow} ${styles.coming} ${roundsStyles.coming}`}
                style={style}
              >
                <span role="cell">…</span>
              </div>
            ) : (
              <LeftOutRow
                key={`left ${left.customer ?? ""} ${left.currency ?? ""} ${left.reason}`}
                index={item.index + 2}
                left={left}
                main={main}
                style={style}
                isMarked={left.customer !== null && leftMarks.has(left.customer)}
                onMark={(isRange) =>
                  row.kind === "left" && (isRange ? leftMarks.to(row.place) : leftMarks.toggle(left, row.place))
                }
                onPutBack={onPutBack}
                onPutIn={onPutIn}
                onAccount={onAccount}
              />
            );
          })}
        </div>
      </div>
      {list.count === 0 && find && (
        <p className={`${styles.parcelsNone} quiet`}>Nobody in this round is found by “{find}”.</p>
      )}
    </div>
  );
}

function ParcelRow({
  index,
  parcel,
  main,
  labels,
  isShown,
  isMarked,
  style,
  onPick,
  onMark,
}: {
  index: number;
  parcel: Parcel;
  main: string;
  labels: string[];
  isShown: boolean;
  isMarked: boolean;
  style: React.CSSProperties;
  onPick: (customer: string) => void;
  /** Marks it, or not any more; or with Shift, all from the one that was marked last. */
  onMark: (isRange: boolean) => void;
}) {
  const first = parcel.sums.find((s) => s.currency === main) ?? parcel.sums[0];
  const others = parcel.sums.filter((s) => s !== first).map((s) => `and ${money(s.total, s.currency)}`);
  const branches = parcel.accounts.filter((a) => a.key !== parcel.customer).length;
  const alsoOn = first?.alsoOn;
  const note = [
    parcel.problem || (["refused", "to-be-retried", "unsure"].includes(parcel.status) ? parcel.answer : ""),
    parcel.changed.length > 0 && `changed: ${parcel.changed.join(", ")}`,
    ownWords(parcel.altered),
    parcel.holdNote,
    parcel.onPaper && (parcel.recipients.length > 0 ? "by post too" : "by post"),
    parcel.reminderLevel !== null && `reminder ${parcel.reminderLevel}`,
    alsoOn && `also on ${alsoOn}’s, counted there`,
    branches > 0 && `for ${count(branches, "branch", "branches")}`,
    ...others,
  ]
    .filter(Boolean)
    .join(" · ");
  return (
    <div
      role="row"
      aria-rowindex={index}
      className={isShown ? `${styles.parcelRow} ${styles.shown}` : styles.parcelRow}
      style={style}
      onClick={(e) => (e.shiftKey ? onMark(true) : onPick(parcel.customer))}
    >
      <span role="cell">
        <MarkBox label={`Mark ${parcel.name}`} isMarked={isMarked} onMark={onMark} />
      </span>
      <span role="cell">
        <Shape status={parcel.status} />
      </span>
      <span role="cell" className={styles.cellCut} title={`${parcel.customer} ${parcel.name}`}>
        <button type="button" aria-current={isShown || undefined}>
          {parcel.name}
        </button>
      </span>
      <span
        role="cell"
        className={`${styles.cellCut} ${styles.parcelNote} ${styles[parcel.changed.length > 0 ? "changed" : parcel.status] ?? ""}`}
        title={note}
      >
        {note}
      </span>
      <span role="cell" className="figure">
        {parcel.items}
      </span>
      <span role="cell">{first && <AgeBar bands={first.bands} labels={labels} />}</span>
      <span role="cell" className={alsoOn ? "figure quiet" : "figure"}>
        {first && (first.currency === main ? figure(first.total) : money(first.total, first.currency))}
      </span>
    </div>
  );
}

/** A box to mark a row by. Shift goes along, for all from the one that was marked last. */
function MarkBox({
  label,
  isMarked,
  isMixed = false,
  onMark,
}: {
  label: string;
  isMarked: boolean;
  isMixed?: boolean;
  onMark: (isRange: boolean) => void;
}) {
  return (
    <input
      type="checkbox"
      className={styles.mark}
      aria-label={label}
      checked={isMarked}
      ref={(box) => {
        if (box) {
          box.indeterminate = isMixed;
        }
      }}
      onClick={(e) => {
        e.stopPropagation();
        onMark(e.shiftKey);
      }}
      onChange={() => undefined}
    />
  );
}

function LeftOutRow({
  index,
  left,
  main,
  style,
  isMarked,
  onMark,
  onPutBack,
  onPutIn,
  onAccount,
}: {
  index: number;
  left: LeftOut;
  main: string;
  style: React.CSSProperties;
  isMarked: boolean;
  /** Marks it, or not any more; or with Shift, all from the one that was marked last. */
  onMark: (isRange: boolean) => void;
  onPutBack: ((customer: string) => void) | undefined;
  onPutIn: (customer: string, name: string) => void;
  onAccount: (customer: string) => void;
}) {
  const { customer, currency } = left;
  return (
    <div role="row" aria-rowindex={index} className={`${styles.parcelRow} ${styles.leftOut}`} style={style}>
      <span role="cell">
        {customer !== null && onPutBack && canBeMarked(left) && (
          <MarkBox label={`Mark ${left.name}`} isMarked={isMarked} onMark={onMark} />
        )}
      </span>
      <span role="cell">
        <Shape status="left-out" />
      </span>
      <span role="cell" className={styles.cellCut}>
        {customer === null ? (
          "no customer"
        ) : (
          <button type="button" aria-haspopup="dialog" onClick={() => onAccount(customer)}>
            {left.name}
          </button>
        )}
      </span>
      <span role="cell" className={styles.cellCut}>
        {reasonWords[left.reason] ?? left.reason}
      </span>
      <span role="cell" className="figure">
        {left.items}
      </span>
      <span role="cell">
        {left.reason === "removed-by-hand" && customer !== null && onPutBack && (
          <button type="button" className="link" onClick={() => onPutBack(customer)}>
            put back
          </button>
        )}
        {canBePutIn.includes(left.reason) && customer !== null && onPutBack && (
          <button type="button" className="link" onClick={() => onPutIn(customer, left.name)}>
            put in…
          </button>
        )}
      </span>
      <span role="cell" className="figure">
        {currency === null ? "" : currency === main ? figure(left.amount) : money(left.amount, currency)}
      </span>
    </div>
  );
}

/** What the parcels of a status, or what is left out, come to: by currency, the first without its sign. */
function sumsOf(round: Round, status: string, main: string): string {
  return round.proof
    .flatMap((p) =>
      status === "left-out"
        ? [{ currency: p.currency, amount: p.leftOut }]
        : p.parts.filter((part) => part.kind === status).map((part) => ({ currency: p.currency, amount: part.amount })),
    )
    .map(({ currency, amount }) => (currency === main ? figure(amount) : money(amount, currency)))
    .join(" · ");
}
