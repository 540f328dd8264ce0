import { useMutation } from "@tanstack/react-query";
import { Alert, Modal, Radio } from "antd";
import { useState } from "react";

import { useBookId } from "../../shared/useBook";
import { joinCustomers } from "./api";

/** Makes two customers one; the person says which code stays. */
export function JoinCustomers({
  pair,
  onClose,
  onDone,
}: {
  pair: [string, string];
  onClose: () => void;
  onDone: () => void;
}) {
  const book = useBookId();
  const [stays, setStays] = useState(pair[1]);
  const joining = useMutation({
    mutationFn: () => joinCustomers(book, { customer: stays === pair[0] ? pair[1] : pair[0], with: stays }),
    onSuccess: onDone,
  });
  return (
    <Modal
      open
      title={`Merge ${pair[0]} and ${pair[1]}`}
      okText="Merge customers"
      cancelText="Cancel"
      confirmLoading={joining.isPending}
      onOk={() => joining.mutate()}
      onCancel={onClose}
    >
      {joining.error && <Alert className="below-10" type="error" title={joining.error.message} />}
      <p className="above-0">All rows go to the one that stays, in this file and in those after it.</p>
      <Radio.Group
        aria-label="Which one stays"
        value={stays}
        options={pair.map((key) => ({ value: key, label: `${key} stays` }))}
        onChange={(e) => setStays(e.target.value as string)}
      />
    </Modal>
  );
}
