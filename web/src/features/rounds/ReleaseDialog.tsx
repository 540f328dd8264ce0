import { useQuery } from "@tanstack/react-query";
import { Alert, Button, Checkbox, Flex, Input, Modal, Select } from "antd";
import { useState } from "react";
import { Problem, type Schemas } from "../../shared/api/client";
import { count, day, money } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { MomentField } from "../../shared/MomentField";
import { Waiting } from "../../shared/Waiting";
import { useRoundActions, type Round } from "./useRound";
import { stillTakes } from "./words";
import roundsStyles from "./rounds.module.css";
import styles from "./ReleaseDialog.module.css";
import { releaseSummary } from "./api";
import { ApprovalLines } from "./ApprovalLines";
import { RemarksLine } from "./RoundRemarks";
import { RequestRelease } from "./RequestRelease";

/** What is about to leave, in plain words, and then one deliberate act. */
export function ReleaseDialog({
  round,
  parcels,
  onClose,
  onReleased,
  onPick,
}: {
  round: Round;
  /** The parcels that are to be released, as far as they are ready; null for all that are. */
  parcels: number[] | null;
  onClose: () => void;
  onReleased?: () => void;
  /** Shows the parcel of a customer instead. */
  onPick: (customer: string) => void;
}) {
  const book = useBookId();
  const summary = useQuery({
    queryKey: ["summary", book, round.id, round.preparedAt, parcels],
    queryFn: () => releaseSummary(book, round.id, { parcels }),
    staleTime: 0,
  });
  return (
    <Modal title={`Release ${round.name}`} open footer={null} onCancel={onClose} width={520}>
      <Waiting query={summary}>
        {(s) => (
          <>
            <RemarksLine
              round={round}
              onPick={(customer) => {
                onClose();
                onPick(customer);
              }}
            />
            <Summary
              summary={s}
              parcels={parcels}
              isUnreleased={round.releasedAt === null}
              onClose={onClose}
              onPick={(customer) => {
                onClose();
                onPick(customer);
              }}
              onReleased={() => {
                onReleased?.();
                onClose();
              }}
            />
          </>
        )}
      </Waiting>
    </Modal>
  );
}

function Summary({
  summary: s,
  parcels,
  isUnreleased,
  onClose,
  onReleased,
  onPick,
}: {
  summary: Schemas["ReleaseSummary"];
  parcels: number[] | null;
  isUnreleased: boolean;
  onClose: () => void;
  onReleased: () => void;
  onPick: (customer: string) => void;
}) {
  const { release, prepare } = useRoundActions();
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState("");
  const [channel, setChannel] = useState<Schemas["Channel"]>("mail");
  const [despiteLedger, setDespiteLedger] = useState(false);
  const [seenChanges, setSeenChanges] = useState(false);
  const things = s.letters > 0 ? "parcels" : "messages";
  const stays = [
    s.othersReady > 0 && `${s.othersReady} ready`,
    s.needYou > 0 && `${s.needYou} need you`,
    s.held > 0 && `${s.held} held`,
    s.leftOut > 0 && `${s.leftOut} left out`,
  ].filter(Boolean);
  const isReady =
    s.parcels > 0 &&
    (!s.countToBeTyped || typed.trim() === String(s.parcels)) &&
    (s.ledgerDoubt === "" || despiteLedger) &&
    (s.changed === "" || seenChanges);
  const go = () => {
    if (isReady && !isAnothers && !release.isPending) {
      release.mutate(
        { parcels, revision: s.revision, seen: s.seen, at: at || null, channel, despiteLedger, seenChanges },
        { onSuccess: onReleased },
      );
    }
  };
  const isAnothers = s.approval !== null && !s.approval.mayRelease;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        go();
      }}
    >
      <dl className={`${styles.summary} ${roundsStyles.facts}`}>
        <dt>Messages</dt>
        <dd>
          <strong>{s.messages.toLocaleString("en-GB")}</strong>
          {s.messages > 0 && `, to ${count(s.addresses, "address", "addresses")}`}
          {s.further > 0 && `; ${s.further.toLocaleString("en-GB")} more with files that one has no room for`}
        </dd>
        {s.letters > 0 && (
          <>
            <dt>Letters</dt>
            <dd>
              <strong>{s.letters.toLocaleString("en-GB")}</strong> by post
              {s.letters + s.messages > s.parcels && `, ${s.letters + s.messages - s.parcels} beside a message`}; you
              print them from one PDF
            </dd>
          </>
        )}
        <dt>Claims</dt>
        <dd>
          <strong>{s.totals.map((t) => money(t.amount, t.currency)).join(" · ") || "nothing"}</strong>
        </dd>
        <dt>From</dt>
        <dd>{s.sender}</dd>
        <dt>By</dt>
        <dd>
          <Select
            size="small"
            aria-label="Leaves by"
            popupMatchSelectWidth={false}
            value={channel}
            options={[
              {
                value: "mail",
                label: s.isPractice ? "the postroom: practice, nothing leaves this machine" : s.server,
              },
              { value: "file", label: "files, to be sent from another mail program" },
            ]}
            onChange={setChannel}
          />
        </dd>
        <dt>Words</dt>
        <dd>
          {s.wordings.map((w) => (s.wordings.length > 1 ? `${w.name} (${w.messages})` : w.name)).join(", ") || "none"}
        </dd>
        <dt>Enclosed</dt>
        <dd>{s.enclosure}</dd>
        <dt>Rehearsed</dt>
        <dd>
          {s.rehearsed === 0
            ? "none of them"
            : `${s.rehearsed} of them as they are now, ${s.lookedAt === 0 ? "none" : s.lookedAt} looked at`}
        </dd>
        {s.approval && <ApprovalLines approval={s.approval} onPick={onPick} />}
        {!isAnothers && (
          <>
            <dt>Leaves</dt>
            <dd>
              <MomentField label="Leaves at" placeholder="now, unless you say when" value={at} onChange={setAt} />{" "}
              {at !== "" && (
                <button type="button" className="link" onClick={() => setAt("")}>
                  at once instead
                </button>
              )}
              {channel === "mail" && allowed(s.forecast) && <p>{allowed(s.forecast)}</p>}
            </dd>
          </>
        )}
        <dt>Stays here</dt>
        <dd>{stays.length > 0 ? stays.join(", ") : "nothing"}</dd>
      </dl>
      {release.error && (
        <Alert
          className="below-10"
          type="error"
          title={release.error.message}
          action={
            isUnreleased &&
            release.error instanceof Problem &&
            release.error.status === 409 && (
              <Button
                size="small"
                loading={prepare.isPending}
                onClick={() => prepare.mutate(undefined, { onSuccess: onClose })}
              >
                Prepare again
              </Button>
            )
          }
        />
      )}
      {s.parcels === 0 && <p>Nothing is ready to be released.</p>}
      {s.changed && (
        <Alert
          className="below-10"
          type="warning"
          title={s.changed}
          description={
            <Checkbox checked={seenChanges} onChange={(e) => setSeenChanges(e.target.checked)}>
              I have seen what changed
            </Checkbox>
          }
        />
      )}
      {s.ledgerDoubt && (
        <Alert
          className="below-10"
          type="warning"
          title={s.ledgerDoubt}
          description={
            <Checkbox checked={despiteLedger} onChange={(e) => setDespiteLedger(e.target.checked)}>
              Release anyway
            </Checkbox>
          }
        />
      )}
      {s.countToBeTyped && !isAnothers && (
        <label className={styles.summaryCount}>
          Type the number of {things} to release them
          <Input
            className="width-90"
            inputMode="numeric"
            value={typed}
            placeholder={String(s.parcels)}
            onChange={(e) => setTyped(e.target.value)}
            autoFocus
          />
        </label>
      )}
      <Flex gap={8} justify="flex-end">
        <Button onClick={onClose}>Cancel</Button>
        {s.approval && isAnothers ? (
          <RequestRelease approval={s.approval} revision={s.revision} onRequested={onClose} />
        ) : (
          <Button
            type="primary"
            htmlType="submit"
            disabled={!isReady}
            loading={release.isPending}
            autoFocus={!s.countToBeTyped}
          >
            Release {count(s.parcels, s.letters > 0 ? "parcel" : "message")}
            {at !== "" && " for then"}
          </Button>
        )}
      </Flex>
    </form>
  );
}

/** What the allowance of the sender makes of it; empty where it has none. */
function allowed({ today, later, lastDay, todaySeconds }: Schemas["ForecastView"]): string {
  const pace = todaySeconds !== null && today > 0 ? `The pace allowed takes ${stillTakes(todaySeconds)}.` : "";
  return later > 0
    ? `The sender’s allowance lets ${count(today, "message")} go today; the other ${later} go by themselves until ${day(lastDay)}. ${pace}`
    : pace;
}
