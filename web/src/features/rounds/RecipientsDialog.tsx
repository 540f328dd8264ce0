import { useQuery } from "@tanstack/react-query";
import { Alert, Modal, Radio, Select } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { suggestedAddresses } from "./api";
import styles from "./RecipientsDialog.module.css";
import { useRoundActions, type Parcel, type Round } from "./useRound";

type View = Schemas["ParcelView"];

/** Whom one message goes to: typed, or picked among the contacts of the customer and its head office. */
export function RecipientsDialog({
  round,
  parcel,
  view,
  onClose,
}: {
  round: Round;
  parcel: Parcel;
  view: View;
  onClose: () => void;
}) {
  const book = useBookId();
  const { changeParcel, setRecipientsForGood } = useRoundActions();
  const [to, setTo] = useState(view.to);
  const [copies, setCopies] = useState(view.copies);
  const [blindCopies, setBlindCopies] = useState(view.blindCopies);
  const [isForGood, setForGood] = useState(false);
  const addresses = useQuery({
    queryKey: ["addresses", book, parcel.id],
    queryFn: () => suggestedAddresses(book, parcel.id),
    staleTime: 0,
  });
  const known = addresses.data ?? [];
  const { recipients, ...others } = view.change;
  const change = (own: Schemas["RecipientsRequest"] | null) =>
    changeParcel.mutate({ seen: round, parcel: parcel.id, recipients: own, ...others }, { onSuccess: onClose });
  const own = { to, copies, blindCopies };
  const error = changeParcel.error ?? setRecipientsForGood.error;
  const field = (label: string, value: string[], onChange: (value: string[]) => void) => (
    <label className={styles.field}>
      <span>{label}</span>
      <Select
        mode="tags"
        aria-label={label}
        value={value}
        onChange={onChange}
        tokenSeparators={[",", ";", " "]}
        optionLabelProp="value"
        options={known.map(({ address }) => ({ value: address, label: address }))}
        optionRender={({ value: address }) => {
          const of = known.find((a) => a.address === address);
          return (
            <span>
              {address}{" "}
              {of && (
                <small className="quiet">
                  {[of.name, of.of].filter(Boolean).join(", ")}
                  {of.problem && <strong className={styles.problem}> {of.problem}</strong>}
                </small>
              )}
            </span>
          );
        }}
      />
    </label>
  );
  const bad = known.filter(
    (a) => a.problem && [...to, ...copies, ...blindCopies].some((x) => x.toLowerCase() === a.address.toLowerCase()),
  );
  return (
    <Modal
      title={`Recipients of ${view.name}`}
      open
      width={560}
      okText="Save recipients"
      cancelText="Cancel"
      okButtonProps={{ disabled: to.length === 0, loading: changeParcel.isPending || setRecipientsForGood.isPending }}
      onCancel={onClose}
      onOk={() =>
        isForGood
          ? setRecipientsForGood.mutate({ seen: round, parcel: parcel.id, ...own }, { onSuccess: onClose })
          : change(own)
      }
    >
      {error && <Alert className="below-8" type="error" title={error.message} />}
      {field("To", to, setTo)}
      {field("Copy", copies, setCopies)}
      {field("Blind copy", blindCopies, setBlindCopies)}
      {bad.map((a) => (
        <Alert key={a.address} className="below-8" type="warning" title={`Mail to ${a.address} ${a.problem}.`} />
      ))}
      <Radio.Group
        className={styles.scope}
        value={isForGood}
        onChange={(e) => setForGood(e.target.value as boolean)}
        options={[
          { value: false, label: "For this round only" },
          { value: true, label: "For good: change the customer card" },
        ]}
      />
      {recipients && (
        <p>
          These were set for this round only.{" "}
          <button type="button" className="link" onClick={() => change(null)}>
            Use those on the card again
          </button>
        </p>
      )}
    </Modal>
  );
}
