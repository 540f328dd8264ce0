import { useQuery } from "@tanstack/react-query";
import { Alert, Input, Modal } from "antd";
import { useState } from "react";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { sourceOf } from "./api";
import { originWords } from "./origins";
import { useRoundActions, type Parcel } from "./useRound";
import roundsStyles from "./rounds.module.css";

/** The cell of the ledger file that something in the preview was read from, to be put right there. */
export function SourceDialog({
  parcel,
  from,
  onAccount,
  onClose,
}: {
  parcel: Parcel;
  from: string;
  /** Shows the items of the customer. */
  onAccount: () => void;
  onClose: () => void;
}) {
  const book = useBookId();
  const { putRight } = useRoundActions();
  const [typed, setTyped] = useState<string>();
  const source = useQuery({
    queryKey: ["parcel", book, parcel.id, "source", from],
    queryFn: () => sourceOf(book, parcel.id, from),
    gcTime: 0,
  });
  const cell = source.data?.cell;
  const becomes = typed ?? cell?.holds ?? "";
  const mayPutRight = cell?.isNow === true && becomes !== cell.holds;
  const save = () => {
    if (mayPutRight && !putRight.isPending) {
      putRight.mutate({ parcel: parcel.id, from, becomes }, { onSuccess: onClose });
    }
  };
  return (
    <Modal
      open
      title={originWords(from)}
      okText="Put right"
      cancelText={mayPutRight ? "Cancel" : "Close"}
      confirmLoading={putRight.isPending}
      okButtonProps={{ disabled: !mayPutRight, htmlType: "submit" }}
      onCancel={onClose}
      modalRender={(dialog) => (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            save();
          }}
        >
          {dialog}
        </form>
      )}
    >
      <Waiting query={source}>
        {(s) => (
          <div className={roundsStyles.dialogLines}>
            {putRight.error && <Alert type="error" title={putRight.error.message} />}
            {s.cell ? (
              <>
                <label>
                  {s.cell.heading}
                  <Input
                    autoFocus
                    disabled={!s.cell.isNow}
                    maxLength={4_000}
                    value={becomes}
                    onFocus={(e) => e.currentTarget.select()}
                    onChange={(e) => setTyped(e.target.value)}
                  />
                </label>
                <p className="quiet">
                  Row {s.cell.row} of {s.cell.file}
                  {s.cell.sheet && `, sheet “${s.cell.sheet}”`}
                  {s.cell.says === s.cell.holds
                    ? "."
                    : `; the file says ${s.cell.says ? `“${s.cell.says}”` : "nothing"} there.`}{" "}
                  {s.cell.isNow
                    ? "The file stays as it is: your correction lies over it, for this ledger and the next, and all parcels made from the row follow."
                    : "It cannot be put right here: something of this round was released, or a newer ledger was kept since."}
                </p>
              </>
            ) : (
              <p>
                The file has no column for it, so it was reckoned from the others.{" "}
                <button type="button" className="link" onClick={onAccount}>
                  Where from
                </button>
              </p>
            )}
          </div>
        )}
      </Waiting>
    </Modal>
  );
}
