import { useQuery } from "@tanstack/react-query";
import { Modal } from "antd";
import { useState } from "react";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useMeant } from "../wordings/useMeant";
import { remarksOf } from "./api";
import type { Schemas } from "../../shared/api/client";
import type { Round } from "./useRound";
import styles from "./RoundRemarks.module.css";

/** What catches the eye in the messages of a round, as it was made up last. */
export function useRemarks(round: Round) {
  const book = useBookId();
  return useQuery({
    queryKey: ["remarks", book, round.id, round.preparedAt, round.revision],
    queryFn: () => remarksOf(book, round.id),
    enabled: round.releasedAt === null,
  });
}

/** How much catches the eye in the messages of a round; leads to what it is. Nothing where nothing does. */
export function RemarksLine({ round, onPick }: { round: Round; onPick: (customer: string) => void }) {
  const remarks = useRemarks(round).data;
  const [open, setOpen] = useState(false);
  const passages = remarks?.wordings.flatMap((w) => w.passages) ?? [];
  if (!remarks || remarks.remarks.length + passages.length === 0) {
    return null;
  }
  return (
    <p className={styles.line}>
      {remarks.parcels > 0 ? `In ${count(remarks.parcels, "message")} something catches the eye.` : passages[0]}{" "}
      <button type="button" className="link" onClick={() => setOpen(true)}>
        Look at the words…
      </button>
      {open && (
        <Modal open footer={null} title="What catches the eye in the words" width={640} onCancel={() => setOpen(false)}>
          <RemarkGroups
            remarks={remarks}
            onPick={(customer) => {
              setOpen(false);
              onPick(customer);
            }}
          />
        </Modal>
      )}
    </p>
  );
}

function RemarkGroups({ remarks, onPick }: { remarks: Schemas["RoundRemarks"]; onPick: (customer: string) => void }) {
  const nameOf = (wording: number) => remarks.wordings.find((w) => w.wording === wording)?.name ?? "";
  return (
    <>
      <p className="quiet above-0">
        Nothing of this keeps a parcel from going.{" "}
        {remarks.wordings.map((w) => `${count(w.parcels, "message")} with “${w.name}”`).join(", ")}.
      </p>
      <ul className={styles.groups}>
        {remarks.wordings.flatMap((w) =>
          w.passages.map((says) => (
            <li key={`${w.wording} ${says}`}>
              {says} <small className="quiet">“{w.name}”</small>
            </li>
          )),
        )}
        {remarks.remarks.map((group) => (
          <Group
            key={`${group.wording} ${group.remark.code} ${group.remark.quote}`}
            group={group}
            wording={nameOf(group.wording)}
            onPick={onPick}
          />
        ))}
      </ul>
    </>
  );
}

function Group({
  group: { wording: id, remark, count: parcels, first },
  wording,
  onPick,
}: {
  group: Schemas["RemarkGroup"];
  wording: string;
  onPick: (customer: string) => void;
}) {
  const { mean } = useMeant(id, false);
  return (
    <li>
      {remark.says}{" "}
      {remark.place && remark.place !== remark.quote && (
        <small className="quiet">{remark.inSubject ? `Subject: ${remark.place}` : remark.place}</small>
      )}
      <div>
        {first.map((p) => (
          <button key={p.id} type="button" className="link" onClick={() => onPick(p.customer)}>
            {p.name}
          </button>
        ))}
        {parcels > first.length && <span className="quiet">and {parcels - first.length} more</span>}{" "}
        <button
          type="button"
          className="link"
          title={`In every message of “${wording}”`}
          onClick={() => mean.mutate({ code: remark.code, quote: remark.quote })}
        >
          It is meant so
        </button>
      </div>
    </li>
  );
}
