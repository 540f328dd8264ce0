import { Input, Modal } from "antd";
import { useState } from "react";

/** Something that is done by hand with a reason, or with one if one likes. */
export function WithReason({
  title,
  act,
  effect,
  first = "",
  isOptional = false,
  onClose,
  onDone,
}: {
  title: string;
  act: string;
  effect: string;
  /** The reason that was given before. */
  first?: string;
  isOptional?: boolean;
  onClose: () => void;
  onDone: (reason: string) => void;
}) {
  const [reason, setReason] = useState(first);
  const may = isOptional || reason.trim() !== "";
  return (
    <Modal
      title={title}
      open
      okText={act}
      cancelText="Cancel"
      okButtonProps={{ disabled: !may }}
      onCancel={onClose}
      onOk={() => onDone(reason.trim())}
    >
      <p>{effect}</p>
      <label>
        {isOptional ? "Note" : "Reason"}
        <Input
          autoFocus
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          onPressEnter={() => may && onDone(reason.trim())}
        />
      </label>
    </Modal>
  );
}
