import { useQuery } from "@tanstack/react-query";
import { Select } from "antd";
import { useState } from "react";
import { useBookId } from "../../shared/useBook";
import type { Schemas } from "../../shared/api/client";
import { enclosuresOf, fileAddress } from "../enclosures/api";
import { useRoundActions, type Parcel, type Round } from "./useRound";
import styles from "./ParcelPane.module.css";

type View = Schemas["ParcelView"];

/** So many files are listed unless all are asked for, so that the message stays in view. */
const few = 3;

const together = { none: "", single: "", joined: ", joined into one PDF", zipped: ", in one ZIP file" };

/** The files that go with the parcel beside its document; while it is not released, each can be left out and others added. */
export function ParcelEnclosures({ round, parcel, view }: { round: Round; parcel: Parcel; view: View }) {
  const book = useBookId();
  const { changeParcel } = useRoundActions();
  const [isAll, setAll] = useState(false);
  const { leftOut, added } = view.change;
  const isOpen = round.releasedAt === null;
  const files = useQuery({
    queryKey: ["enclosures", book, "picked"],
    queryFn: () => enclosuresOf(book),
    enabled: isOpen,
  });
  const change = (to: { leftOut?: number[]; added?: number[] }) =>
    changeParcel.mutate({ seen: round, parcel: parcel.id, ...view.change, ...to });
  const messages = Math.max(0, ...view.enclosures.map((e) => e.message)) + 1;
  const copies = view.enclosures.filter((e) => e.numbers.length > 0);
  const addable = (files.data ?? []).filter((f) => !view.enclosures.some((e) => e.file === f.id));
  return (
    <>
      {(isAll ? view.enclosures : view.enclosures.slice(0, few)).map((e) => (
        <span key={e.file} className={styles.enclosure}>
          <a href={fileAddress(book, e.file)} target="_blank" rel="noreferrer">
            {e.name}
          </a>{" "}
          <small className="quiet">
            {size(e.size)}
            {messages > 1 && `, message ${e.message + 1} of ${messages}`}
          </small>{" "}
          {isOpen && (
            <button
              type="button"
              className="link"
              onClick={() =>
                change(
                  added.includes(e.file)
                    ? { added: added.filter((f) => f !== e.file) }
                    : { leftOut: [...leftOut, e.file] },
                )
              }
            >
              Leave out<span className="visually-hidden"> {e.name}</span>
            </button>
          )}
        </span>
      ))}
      {view.enclosures.length > few && (
        <button type="button" className="link" aria-expanded={isAll} onClick={() => setAll(!isAll)}>
          {isAll ? "Show fewer" : `Show all ${view.enclosures.length} files`}
        </button>
      )}
      {copies.length > 1 && view.copyForm !== "single" && (
        <small className="quiet">
          {copies.length} copies{together[view.copyForm]}
        </small>
      )}
      {isOpen && leftOut.length > 0 && (
        <button type="button" className="link" onClick={() => change({ leftOut: [] })}>
          Put back {leftOut.length === 1 ? "the file" : `the ${leftOut.length} files`} left out
        </button>
      )}
      {isOpen && addable.length > 0 && (
        <Select<number>
          size="small"
          variant="borderless"
          aria-label="Add a file to this parcel"
          placeholder="Add a file…"
          popupMatchSelectWidth={false}
          value={null}
          options={addable.map((f) => ({ value: f.id, label: f.name }))}
          onChange={(file) => change({ added: [...added, file] })}
        />
      )}
    </>
  );
}

const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1_000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
