import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Select } from "antd";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { Shape, statusWords } from "../../shared/Shape";
import { useBookId } from "../../shared/useBook";
import { useIsVisible } from "../../shared/useIsVisible";
import { useIsWide } from "../../shared/useIsWide";
import { Waiting } from "../../shared/Waiting";
import { Remarks } from "../wordings/Remarks";
import { CustomerInView } from "../wordings/slotExamples";
import { AccountTable } from "./AccountTable";
import { MessageFrame } from "./MessageFrame";
import { ParcelEnclosures } from "./ParcelEnclosures";
import { ParcelWords } from "./ParcelWords";
import { RecipientsDialog } from "./RecipientsDialog";
import { PlaceMarks } from "./PlaceMarks";
import { Retry } from "./Retry";
import { StatementPages } from "./StatementPages";
import { useLookedAt, type Parcel, type Round } from "./useRound";
import { served } from "../../shared/served";
import { ownWords } from "./words";
import styles from "./ParcelPane.module.css";
import roundsStyles from "./rounds.module.css";
import { FillTabs } from "../../shared/FillTabs";
import { parcelOf, placesOf, settleUnsure } from "./api";
import { whereRight } from "./origins";

export const paneTabs = ["message", "statement", "sources", "words"] as const;
export type PaneTab = (typeof paneTabs)[number];

type View = Awaited<ReturnType<typeof parcelOf>>;

// Preparing and sending change what a parcel holds and where it stands; what was fetched before does not serve.
const versionOf = (round: Round, parcel: Parcel) => `${round.preparedAt ?? ""} ${parcel.status}`;

const viewOf = (book: number, round: Round, parcel: Parcel) =>
  queryOptions({
    queryKey: ["parcel", book, parcel.id, versionOf(round, parcel)],
    queryFn: () => parcelOf(book, parcel.id),
    // What is being written stays while the same parcel is brought anew.
    placeholderData: (before, query) => (query?.queryKey[2] === parcel.id ? before : undefined),
  });

/** The parcel in view as its recipient will see it, what it is made of, and the words that it shares with the others. */
export function ParcelPane({
  round,
  parcel,
  next,
  isCovered,
  tab,
  onTab,
  onWorded,
  isReaddressed,
  onRecipients,
  onHoldNote,
  onCard,
  onSource,
}: {
  round: Round;
  parcel: Parcel;
  /** The parcel that is likely looked at after it. */
  next: Parcel | undefined;
  /** Whether something lies over it, so that nobody looks at it. */
  isCovered: boolean;
  tab: PaneTab;
  onTab: (tab: PaneTab) => void;
  onWorded: () => void;
  /** Whether its recipients are being changed. */
  isReaddressed: boolean;
  /** Begins to change its recipients, or ends it. */
  onRecipients: () => void;
  /** Asks for a note to the hold. */
  onHoldNote: () => void;
  /** Opens the card of its customer. */
  onCard: () => void;
  /** Opens what something in it was read from. */
  onSource: (from: string) => void;
}) {
  const book = useBookId();
  const { message } = App.useApp();
  const base = served(`/api/books/${book}/parcels/${parcel.id}`);
  const version = versionOf(round, parcel);
  const view = useQuery(viewOf(book, round, parcel));
  // What is likely wanted after it is fetched once it is there itself; what goes wrong with that is told when it is looked at.
  useQuery({ ...viewOf(book, round, next ?? parcel), enabled: view.isSuccess, notifyOnChangeProps: [] });
  const isWide = useIsWide();
  // What was released stays as it is, so that nothing of it leads to where it could be put right.
  const places = useQuery({
    queryKey: ["parcel", book, parcel.id, version, "places"],
    queryFn: () => placesOf(book, parcel.id),
    enabled: (isWide || tab === "statement") && round.releasedAt === null,
  });
  const point = (from: string) => {
    switch (whereRight(from)) {
      case "ledger":
        onSource(from);
        break;
      case "card":
        onCard();
        break;
      case "account":
        onTab("sources");
        break;
      default:
        void message.info(
          "It is the same on every parcel: your firm and its senders stand under Words & paper, the round’s name at the left.",
        );
    }
  };
  const letter = (v: View) =>
    v.to.length === 0 && v.post.length > 0 ? (
      <p className="quiet">No message goes to this customer, only the document, by post.</p>
    ) : (
      <MessageFrame name={v.name} html={v.message} onPoint={point} />
    );
  const pages = (v: View) => (
    <StatementPages
      address={`${base}/document?form=pdf`}
      name={v.documents.find((d) => d.form === "pdf")?.name ?? "not enclosed as a PDF"}
      version={version}
      over={(page) => (
        <PlaceMarks
          places={(places.data?.places ?? []).filter((p) => p.page === page).map((p) => ({ ...p, text: "" }))}
          onPoint={point}
        />
      )}
    />
  );
  return (
    <Waiting query={view}>
      {(v) => (
        <article aria-label={`Parcel of ${v.name}`}>
          <dl className={roundsStyles.facts}>
            {(v.to.length > 0 || v.post.length === 0) && (
              <>
                <dt>To</dt>
                <dd>
                  {v.to.join("; ")}{" "}
                  {round.releasedAt === null && (
                    <button type="button" className="link" onClick={onRecipients}>
                      Change…
                    </button>
                  )}
                </dd>
                {v.copies.length > 0 && (
                  <>
                    <dt>Copy</dt>
                    <dd>{v.copies.join("; ")}</dd>
                  </>
                )}
                {v.blindCopies.length > 0 && (
                  <>
                    <dt>Blind copy</dt>
                    <dd>{v.blindCopies.join("; ")}</dd>
                  </>
                )}
                <dt>From</dt>
                <dd>{v.from}</dd>
                <dt>Subject</dt>
                <dd>
                  <strong>{v.subject}</strong>
                </dd>
              </>
            )}
            {v.post.length > 0 && (
              <>
                <dt>By post</dt>
                <dd>{v.post.join(", ")}</dd>
              </>
            )}
            <dt>{v.to.length > 0 ? "Enclosed" : "Document"}</dt>
            <dd className={styles.enclosed}>
              {v.documents.map((d) => (
                <a key={d.form} href={`${base}/document?form=${d.form}`} target="_blank" rel="noreferrer">
                  {d.name}
                </a>
              ))}
              <ParcelEnclosures round={round} parcel={parcel} view={v} />
            </dd>
          </dl>
          <Changed key={`${parcel.id} ${version}`} round={round} parcel={parcel} isCovered={isCovered} />
          <Altered parcel={parcel} onWords={() => onTab("words")} />
          <State
            round={round}
            parcel={parcel}
            hasEmptySlot={v.emptySlots.length > 0}
            remedy={v.remedy}
            onHoldNote={onHoldNote}
          />
          {isReaddressed && <RecipientsDialog round={round} parcel={parcel} view={v} onClose={onRecipients} />}
          {v.wordingErrors.map((error) => (
            <Alert className="below-8" key={error} type="error" title={error} />
          ))}
          {v.wordingId > 0 && <Remarks wording={v.wordingId} remarks={v.remarks} />}
          <FillTabs
            size="small"
            activeKey={isWide && tab === "statement" ? "message" : tab}
            onChange={(key) => onTab(key as PaneTab)}
            items={[
              ...(isWide
                ? [
                    {
                      key: "message",
                      label: "Message and statement",
                      children: (
                        <div className={styles.sideBySide}>
                          {letter(v)}
                          <div>{pages(v)}</div>
                        </div>
                      ),
                    },
                  ]
                : [
                    { key: "message", label: "Message", children: letter(v) },
                    { key: "statement", label: "Statement", children: pages(v) },
                  ]),
              {
                key: "sources",
                label: "Where from",
                children: <Accounts key={parcel.customer} round={round} parcel={parcel} />,
              },
              {
                key: "words",
                label: "Words",
                children: (
                  <CustomerInView value={parcel.customer}>
                    <ParcelWords key={parcel.id} round={round} parcel={parcel} view={v} onWorded={onWorded} />
                  </CustomerInView>
                ),
              },
            ]}
          />
        </article>
      )}
    </Waiting>
  );
}

/** What changed since somebody looked at the parcel. It is seen with that, and told for as long as the parcel stays as it is. */
function Changed({ round, parcel, isCovered }: { round: Round; parcel: Parcel; isCovered: boolean }) {
  const lookedAt = useLookedAt(round);
  const [changed] = useState(parcel.changed);
  const isVisible = useIsVisible();
  const isLookedAt = isVisible && !isCovered && parcel.changed.length > 0 && round.releasedAt === null;
  useEffect(() => {
    if (isLookedAt) {
      lookedAt(parcel.id);
    }
  }, [isLookedAt, lookedAt, parcel.id]);
  return changed.length > 0 ? (
    <p className={styles.paneState}>Changed since it was looked at last: {changed.join(", ")}.</p>
  ) : null;
}

/** What of it somebody changed on it alone. */
function Altered({ parcel, onWords }: { parcel: Parcel; onWords: () => void }) {
  return parcel.altered.length > 0 ? (
    <p className={styles.paneState}>
      This parcel has {ownWords(parcel.altered)}.{" "}
      {parcel.altered.some((a) => a === "words" || a === "document") && (
        <button type="button" className="link" onClick={onWords}>
          Show what differs
        </button>
      )}
    </p>
  ) : null;
}

/** The accounts on the statements of the parcel; of a head office, one after the other. */
function Accounts({ round, parcel }: { round: Round; parcel: Parcel }) {
  const [picked, setPicked] = useState(parcel.customer);
  const shown = (parcel.accounts.find((a) => a.key === picked) ?? parcel.accounts[0])?.key ?? parcel.customer;
  return (
    <>
      {parcel.accounts.length > 1 && (
        <Select
          className="below-8 at-least-220"
          size="small"
          aria-label="Account"
          popupMatchSelectWidth={false}
          value={shown}
          options={parcel.accounts.map((a) => ({ value: a.key, label: `${a.name} (${a.key})` }))}
          onChange={setPicked}
        />
      )}
      <AccountTable round={round} customer={shown} />
    </>
  );
}

/** How the parcel stands where that is worth a word; an unsure one is decided here. */
function State({
  round,
  parcel,
  hasEmptySlot,
  remedy,
  onHoldNote,
}: {
  round: Round;
  parcel: Parcel;
  hasEmptySlot: boolean;
  remedy: Schemas["ProblemRemedy"];
  onHoldNote: () => void;
}) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const deciding = useMutation({
    mutationFn: (went: boolean) => settleUnsure(book, parcel.id, { went }),
    onSuccess: () => client.invalidateQueries(),
    onError: (e) => message.error(e.message),
  });
  if (["prepared", "needs-you"].includes(parcel.status)) {
    return parcel.problem ? (
      <p className={styles.paneState}>
        <Shape status="needs-you" label={false} /> Needs you: {parcel.problem}.{" "}
        {remedy === "copies" && <Link to={`/books/${book}/rounds/${round.id}/copies`}>Match copies</Link>}
        {remedy === "words-and-paper" && <Link to={`/books/${book}/words`}>Correct it in Words &amp; paper</Link>}
        {remedy === "card" && (
          <>Correct it on the card (C){hasEmptySlot && ", or give the slot an “or else” under Words (4)"}.</>
        )}
      </p>
    ) : null;
  }
  return (
    <p className={styles.paneState}>
      <Shape status={parcel.status} label={false} /> {statusWords[parcel.status]}
      {(parcel.problem || parcel.answer) && `: ${parcel.problem || parcel.answer}`}
      {parcel.holdNote && `: ${parcel.holdNote}`}
      {parcel.status === "held" && round.releasedAt === null && (
        <>
          {" "}
          <button type="button" className="link" onClick={onHoldNote}>
            {parcel.holdNote ? "Change the note…" : "Add a note…"}
          </button>
        </>
      )}
      {parcel.canBeRetried && (
        <>
          {" "}
          <Retry round={round.id} parcel={parcel.id} />
        </>
      )}
      {parcel.status === "unsure" && (
        <>
          <br />
          The server had all of it and gave no answer. Ask the customer, or look into the server’s log, and decide:{" "}
          <Button size="small" onClick={() => deciding.mutate(true)}>
            Mark as sent
          </Button>{" "}
          <Button size="small" onClick={() => deciding.mutate(false)}>
            Send again
          </Button>
        </>
      )}
    </p>
  );
}
