import { Modal, Select } from "antd";
import { useState } from "react";
import { day, money } from "../../shared/figure";
import { AmountField } from "../../shared/AmountField";
import type { Account, AccountItem, useAccountActions } from "./useAccount";
import roundsStyles from "./rounds.module.css";

const kept = "";

/** A payment or credit is set against an item, or kept as a credit; the next intake remembers it. */
export function SettleDialog({
  credit,
  account,
  actions,
  onClose,
}: {
  credit: AccountItem;
  account: Account;
  actions: ReturnType<typeof useAccountActions>;
  onClose: () => void;
}) {
  const [charge, setCharge] = useState<string>();
  const [amount, setAmount] = useState<number | null>(null);
  const charges = account.items.filter(
    (i) => Number(i.original) > 0 && i.currency === credit.currency && i.reason !== "after-the-date",
  );
  return (
    <Modal
      title={`What does ${credit.name} settle? It is ${money(credit.original.replace(/^-/, ""), credit.currency)}.`}
      open
      okText="Set"
      cancelText="Cancel"
      okButtonProps={{ disabled: charge === undefined }}
      confirmLoading={actions.settle.isPending}
      onCancel={onClose}
      onOk={() =>
        actions.settle.mutate(
          {
            customer: account.customer,
            credit: credit.key,
            charge: charge === kept ? null : (charge ?? null),
            amount: charge === kept ? null : amount,
          },
          { onSuccess: onClose },
        )
      }
    >
      <div className={roundsStyles.dialogLines}>
        <label>
          Against
          <Select
            className="whole-width"
            aria-label="Against"
            placeholder="Choose an item"
            value={charge}
            onChange={setCharge}
            options={[
              ...charges.map((c) => ({
                value: c.key,
                label: `${c.name}, due ${day(c.due)}, ${money(c.original, c.currency)}, of which ${money(c.open, c.currency)} is open`,
              })),
              { value: kept, label: "nothing: keep it as a credit" },
            ]}
          />
        </label>
        {charge !== undefined && charge !== kept && (
          <label>
            How much
            <AmountField
              className="whole-width"
              min={0.001}
              controls={false}
              placeholder="as much as there is"
              value={amount}
              onChange={setAmount}
            />
          </label>
        )}
        <p className="quiet">
          This holds in every round, and when the next ledger is taken in, until it is taken back.
        </p>
      </div>
    </Modal>
  );
}
