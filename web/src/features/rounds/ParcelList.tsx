import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, type ReactNode } from "react";
import { AgeBar } from "../../shared/AgeBar";
import { count, figure, money } from "../../shared/figure";
import { Shape } from "../../shared/Shape";
import type { LeftOut, Parcel, Round } from "./useRound";
import { canBePutIn, groupWords, reasonWords, standingOrder } from "./words";

type Row =
  | { kind: "group"; standing: string; count: number; sums: string }
  | { kind: "parcel"; parcel: Parcel }
  | { kind: "left"; left: LeftOut };

const rowHeight = 24;

/** The parcels in the order of the list, those that need a person first. */
export function inOrder(parcels: Parcel[], find: string): Parcel[] {
  const wanted = find.trim().toLowerCase();
  return parcels
    .filter((p) => !wanted || `${p.customer} ${p.name}`.toLowerCase().includes(wanted))
    .map((parcel, at) => ({ parcel, at }))
    .sort((a, b) => standingOrder.indexOf(a.parcel.standing) - standingOrder.indexOf(b.parcel.standing) || a.at - b.at)
    .map(({ parcel }) => parcel);
}

/** The sheet of the round: a row for each parcel, in groups by standing, then what is left out with its reason. */
export function ParcelList({
  round,
  parcels,
  shown,
  labels,
  leftOpen,
  find,
  finder,
  onPick,
  onLeftOpen,
  onPutBack,
  onPutIn,
  onAccount,
}: {
  round: Round;
  parcels: Parcel[];
  shown: string | undefined;
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
  const rows = useMemo(() => rowsOf(round, parcels, leftOpen, main, find), [round, parcels, leftOpen, main, find]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 20,
  });
  const at = rows.findIndex((r) => r.kind === "parcel" && r.parcel.customer === shown);
  const leftAt = rows.findIndex((r) => r.kind === "group" && r.standing === "left-out");
  useEffect(() => {
    if (at >= 0) {
      virtual.scrollToIndex(at, { align: "auto" });
    }
  }, [at, virtual]);
  useEffect(() => {
    if (leftOpen && leftAt >= 0) {
      virtual.scrollToIndex(leftAt, { align: "start" });
    }
  }, [leftOpen, leftAt, virtual]);
  return (
    <div className="parcels" ref={scroller} tabIndex={0} role="region" aria-label="Parcels">
      <div role="table" aria-label="Parcels of the round" aria-rowcount={rows.length + 1} className="parcel-sheet">
        <div role="row" aria-rowindex={1} className="parcel-row parcel-head">
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
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index];
            if (!row) {
              return null;
            }
            const style = { transform: `translateY(${item.start}px)` };
            if (row.kind === "group") {
              return (
                <div
                  key={`group ${row.standing}`}
                  role="row"
                  aria-rowindex={item.index + 2}
                  className="parcel-row parcel-group"
                  style={style}
                >
                  <span role="cell" className="parcel-group-name">
                    {row.standing === "left-out" ? (
                      <button type="button" className="link" aria-expanded={leftOpen} onClick={onLeftOpen}>
                        {groupWords[row.standing]} · {row.count}
                      </button>
                    ) : (
                      `${groupWords[row.standing] ?? row.standing} · ${row.count}`
                    )}
                  </span>
                  <span role="cell" className="figure parcel-group-sum">
                    {row.sums}
                  </span>
                </div>
              );
            }
            return row.kind === "parcel" ? (
              <ParcelRow
                key={row.parcel.customer}
                index={item.index + 2}
                parcel={row.parcel}
                main={main}
                labels={labels}
                isShown={row.parcel.customer === shown}
                style={style}
                onPick={onPick}
              />
            ) : (
              <LeftOutRow
                key={`left ${row.left.customer ?? ""} ${row.left.currency ?? ""} ${row.left.reason}`}
                index={item.index + 2}
                left={row.left}
                main={main}
                style={style}
                onPutBack={onPutBack}
                onPutIn={onPutIn}
                onAccount={onAccount}
              />
            );
          })}
        </div>
      </div>
      {parcels.length === 0 && find && <p className="quiet parcels-none">Nobody in this round is found by “{find}”.</p>}
    </div>
  );
}

function ParcelRow({
  index,
  parcel,
  main,
  labels,
  isShown,
  style,
  onPick,
}: {
  index: number;
  parcel: Parcel;
  main: string;
  labels: string[];
  isShown: boolean;
  style: React.CSSProperties;
  onPick: (customer: string) => void;
}) {
  const first = parcel.sums.find((s) => s.currency === main) ?? parcel.sums[0];
  const others = parcel.sums.filter((s) => s !== first).map((s) => `and ${money(s.total, s.currency)}`);
  const branches = parcel.accounts.filter((a) => a.key !== parcel.customer).length;
  const alsoOn = first?.alsoOn;
  const note = [
    parcel.problem || (["refused", "to-be-retried", "unsure"].includes(parcel.standing) ? parcel.answer : ""),
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
      className={isShown ? "parcel-row shown" : "parcel-row"}
      style={style}
      onClick={() => onPick(parcel.customer)}
    >
      <span role="cell">
        <Shape standing={parcel.standing} />
      </span>
      <span role="cell" className="cell-cut" title={`${parcel.customer} ${parcel.name}`}>
        <button type="button" aria-current={isShown || undefined} onClick={() => onPick(parcel.customer)}>
          {parcel.name}
        </button>
      </span>
      <span role="cell" className={`cell-cut parcel-note ${parcel.standing}`} title={note}>
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

function LeftOutRow({
  index,
  left,
  main,
  style,
  onPutBack,
  onPutIn,
  onAccount,
}: {
  index: number;
  left: LeftOut;
  main: string;
  style: React.CSSProperties;
  onPutBack: ((customer: string) => void) | undefined;
  onPutIn: (customer: string, name: string) => void;
  onAccount: (customer: string) => void;
}) {
  const { customer, currency } = left;
  return (
    <div role="row" aria-rowindex={index} className="parcel-row left-out" style={style}>
      <span role="cell">
        <Shape standing="left-out" />
      </span>
      <span role="cell" className="cell-cut">
        {customer === null ? (
          "no customer"
        ) : (
          <button type="button" aria-haspopup="dialog" onClick={() => onAccount(customer)}>
            {left.name}
          </button>
        )}
      </span>
      <span role="cell" className="cell-cut">
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

function rowsOf(round: Round, parcels: Parcel[], leftOpen: boolean, main: string, find: string): Row[] {
  const rows: Row[] = [];
  const sumOf = (kind: (part: string) => boolean) =>
    round.proof
      .flatMap((p) =>
        p.parts
          .filter((part) => kind(part.kind))
          .map((part) => (p.currency === main ? figure(part.amount) : money(part.amount, p.currency))),
      )
      .join(" · ");
  let standing = "";
  for (const parcel of parcels) {
    if (parcel.standing !== standing) {
      standing = parcel.standing;
      const count = parcels.filter((p) => p.standing === standing).length;
      rows.push({ kind: "group", standing, count, sums: find ? "" : sumOf((k) => k === parcel.standing) });
    }
    rows.push({ kind: "parcel", parcel });
  }
  if (round.leftOut.length > 0 && !find) {
    rows.push({
      kind: "group",
      standing: "left-out",
      count: round.leftOut.length,
      sums: round.proof
        .map((p) => (p.currency === main ? figure(p.leftOut) : money(p.leftOut, p.currency)))
        .join(" · "),
    });
    if (leftOpen) {
      rows.push(...round.leftOut.map((left) => ({ kind: "left" as const, left })));
    }
  }
  return rows;
}
