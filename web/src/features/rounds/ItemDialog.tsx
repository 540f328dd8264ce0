import { Button, Input, Modal, Radio } from "antd";
import { useState } from "react";
import { DayField } from "../../shared/DayField";
import type { AccountItem, useAccountActions } from "./useAccount";
import roundsStyles from "./rounds.module.css";

/** An item is left out of this round or held back from all, or one that is left out is put in; always with a reason. */
export function ItemDialog({
  item,
  customer,
  actions,
  onClose,
}: {
  item: AccountItem;
  customer: string;
  actions: ReturnType<typeof useAccountActions>;
  onClose: () => void;
}) {
  const isIn = item.reason === "";
  const [what, setWhat] = useState<"out" | "hold">("out");
  const [reason, setReason] = useState("");
  const [until, setUntil] = useState("");
  const done = () => {
    if (!reason.trim()) {
      return;
    }

    if (isIn && what === "hold") {
      actions.hold.mutate(
        { customer, item: item.key, note: reason.trim(), until: until || null },
        { onSuccess: onClose },
      );
    } else {
      actions.decide.mutate(
        { customer, item: item.key, decision: isIn ? "out" : "in", reason: reason.trim() },
        { onSuccess: onClose },
      );
    }
  };
  return (
    <Modal
      title={isIn ? `Leave ${item.name} out?` : `Put ${item.name} in?`}
      open
      okText={isIn ? "Leave out" : "Put in"}
      cancelText="Cancel"
      okButtonProps={{ disabled: !reason.trim(), htmlType: "submit" }}
      confirmLoading={actions.hold.isPending || actions.decide.isPending}
      onCancel={onClose}
      modalRender={(dialog) => (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            done();
          }}
        >
          {dialog}
        </form>
      )}
    >
      <div className={roundsStyles.dialogLines}>
        {isIn && (
          <Radio.Group
            value={what}
            onChange={(e) => setWhat(e.target.value as "out" | "hold")}
            options={[
              { value: "out", label: "Out of this round" },
              { value: "hold", label: "Held back from every round" },
            ]}
          />
        )}
        <label>
          Reason
          <Input autoFocus value={reason} onChange={(e) => setReason(e.target.value)} />
        </label>
        {isIn && what === "hold" && (
          <div>
            Follow up on
            <div>
              <DayField label="Follow up on" placeholder="when somebody says so" value={until} onChange={setUntil} />{" "}
              {until && (
                <Button size="small" type="link" onClick={() => setUntil("")}>
                  no day
                </Button>
              )}
            </div>
          </div>
        )}
        <p className="quiet">
          {isIn
            ? "Its sum stays in the proof, under “left out” with your reason."
            : "It goes on the statement of this round, whatever the choices at the left say."}
        </p>
      </div>
    </Modal>
  );
}
