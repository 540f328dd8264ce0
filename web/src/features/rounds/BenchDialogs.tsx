import { Drawer } from "antd";
import { count } from "../../shared/figure";
import { CustomerCard } from "../customers/CustomerCard";
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
  const decideAll = (decision: string, reason: string) =>
    actions.decide.mutate(
      { seen: round, customers: marks.customers, decision, reason },
      { onSuccess: () => decision === "removed" && marks.none() },
    );
  return (
    <>
      {opened === "release" && <ReleaseDialog round={round} parcels={null} onClose={close} />}
      {opened === "rehearse" && (
        <RehearseDialog round={round} shown={shown} marked={marks.ids} ready={ready} onClose={close} />
      )}
      {opened === "release-this" && shown && <ReleaseDialog round={round} parcels={[shown.id]} onClose={close} />}
      {opened === "marked-release" && (
        <ReleaseDialog round={round} parcels={marks.ids} onClose={close} onReleased={marks.none} />
      )}
      {opened === "marked-hold" && (
        <WithReason
          title={`Hold ${count(marks.count, "parcel")}?`}
          act="Hold"
          effect="They stay in the round and are not released until somebody lets them go."
          isOptional
          onClose={close}
          onDone={(reason) => {
            close();
            decideAll("held", reason);
          }}
        />
      )}
      {opened === "marked-remove" && (
        <WithReason
          title={`Take ${count(marks.count, "parcel")} out of this round?`}
          act="Take out"
          effect="They are listed under “left out” with your reason, and their sum stays in the proof."
          onClose={close}
          onDone={(reason) => {
            close();
            decideAll("removed", reason);
          }}
        />
      )}
      {opened === "hold-note" && shown && (
        <WithReason
          title={`Hold ${shown.name}`}
          act="Save note"
          effect="It stays in the round and is not released until somebody lets it go."
          first={shown.holdNote}
          isOptional
          onClose={close}
          onDone={(reason) => {
            close();
            actions.decide.mutate({ seen: round, customers: [shown.customer], decision: "held", reason });
          }}
        />
      )}
      {opened === "remove" && shown && (
        <WithReason
          title={`Take ${shown.name} out of this round?`}
          act="Take out"
          effect="It is listed under “left out” with your reason, and its sum stays in the proof."
          onClose={close}
          onDone={(reason) => {
            close();
            actions.decide.mutate(
              { seen: round, customers: [shown.customer], decision: "removed", reason },
              { onSuccess: () => after && onPick(after.customer) },
            );
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
