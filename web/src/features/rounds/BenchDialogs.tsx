import { Drawer } from "antd";
import { CustomerCard } from "../customers/CustomerCard";
import { type AskedReason, askedReason } from "./askedReason";
import { RehearseDialog } from "./RehearseDialog";
import { ReleaseDialog } from "./ReleaseDialog";
import type { useMarks } from "./useMarks";
import type { Parcel, Round, useRoundActions } from "./useRound";
import { WithReason } from "./WithReason";

/** What lies over the bench; what begins with `marked` is done to all that are marked. */
export type Opened =
  | "release"
  | "release-this"
  | "remove"
  | "correct"
  | "recipients"
  | "rehearse"
  | "hold-note"
  | "marked-hold"
  | "marked-remove"
  | "marked-release"
  | undefined;

/** The dialogs about the parcel in view, those that are marked, or all of the round. */
export function BenchDialogs({
  round,
  opened,
  onOpened,
  shown,
  after,
  marks,
  ready,
  actions,
  onPick,
}: {
  round: Round;
  opened: Opened;
  onOpened: (opened: Opened) => void;
  /** The parcel in view. */
  shown: Parcel | undefined;
  /** The parcel that is looked at when the one in view is taken out. */
  after: Parcel | undefined;
  marks: ReturnType<typeof useMarks>;
  /** How many parcels are ready. */
  ready: number;
  actions: ReturnType<typeof useRoundActions>;
  onPick: (customer: string) => void;
}) {
  const isReleased = round.releasedAt !== null;
  const close = () => onOpened(undefined);
  const asked = askedReason(opened, shown, marks.customers);
  const decide = ({ decision, customers, isOfMarked }: AskedReason, reason: string) =>
    actions.decide.mutate(
      { seen: round, customers, decision, reason },
      {
        onSuccess: () => {
          if (decision === "removed" && isOfMarked) {
            marks.none();
          } else if (decision === "removed" && after) {
            onPick(after.customer);
          }
        },
      },
    );
  return (
    <>
      {opened === "release" && <ReleaseDialog round={round} parcels={null} onClose={close} onPick={onPick} />}
      {opened === "rehearse" && (
        <RehearseDialog round={round} shown={shown} marked={marks.ids} ready={ready} onClose={close} />
      )}
      {opened === "release-this" && shown && (
        <ReleaseDialog round={round} parcels={[shown.id]} onClose={close} onPick={onPick} />
      )}
      {opened === "marked-release" && (
        <ReleaseDialog round={round} parcels={marks.ids} onClose={close} onReleased={marks.none} onPick={onPick} />
      )}
      {asked && (
        <WithReason
          key={opened}
          {...asked}
          onClose={close}
          onDone={(reason) => {
            close();
            decide(asked, reason);
          }}
        />
      )}
      <Drawer open={opened === "correct"} onClose={close} title="Customer card" size={420} destroyOnHidden>
        {shown && (
          <CustomerCard
            customer={shown.customer}
            onDone={() => {
              close();
              if (!isReleased) {
                actions.prepare.mutate();
              }
            }}
          />
        )}
      </Drawer>
    </>
  );
}
