import { Input, Modal } from "antd";
import { useState } from "react";

/** Something that is done by hand only with a reason. */
export function WithReason({
  title,
  act,
  effect,
  onClose,
  onDone,
}: {
  title: string;
  act: string;
  effect: string;
  onClose: () => void;
  onDone: (reason: string) => void;
}) {
  const [reason, setReason] = useState("");
  return (
    <Modal
      title={title}
      open
      okText={act}
      cancelText="Cancel"
      okButtonProps={{ disabled: !reason.trim() }}
      onCancel={onClose}
      onOk={() => onDone(reason.trim())}
    >
      <p>{effect}</p>
      <label>
        Reason
        <Input
          autoFocus
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          onPressEnter={() => reason.trim() && onDone(reason.trim())}
        />
      </label>
    </Modal>
  );
}
