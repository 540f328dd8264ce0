import { App, Button } from "antd";
import type { Schemas } from "../../shared/api/client";
import { useRoundActions } from "./useRound";

/** Asks somebody else to release the round in view. */
export function RequestRelease({
  approval,
  revision,
  onRequested,
}: {
  approval: NonNullable<Schemas["ApprovalView"]>;
  revision: number;
  onRequested: () => void;
}) {
  const { requestRelease } = useRoundActions();
  const { message } = App.useApp();
  const ask = () =>
    requestRelease.mutate(
      { revision, seen: approval.allSeen },
      {
        onSuccess: () => {
          message.success("Everybody who has this book sees on Today that the round is to be released.");
          onRequested();
        },
      },
    );
  return (
    <Button type="primary" loading={requestRelease.isPending} onClick={ask} autoFocus>
      {approval.requestedAt ? "Request release again" : "Request release"}
    </Button>
  );
}
