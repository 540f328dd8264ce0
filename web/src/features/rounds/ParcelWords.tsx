import { Alert, Button, Input, Radio } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { SlotText } from "../wordings/SlotText";
import { WordingEditor } from "../wordings/WordingEditor";
import styles from "./ParcelWords.module.css";
import { useRoundActions, type Parcel, type Round } from "./useRound";
import { whyWording } from "./words";

type View = Schemas["ParcelView"];

/** The words of the parcel in view: those that it shares with others, or its own. */
export function ParcelWords({
  round,
  parcel,
  view,
  onWorded,
}: {
  round: Round;
  parcel: Parcel;
  view: View;
  onWorded: () => void;
}) {
  const isFixed = round.releasedAt !== null;
  const [isOwn, setOwn] = useState(view.change.words !== null || view.change.documentNote !== "");
  return (
    <>
      <Radio.Group
        className="below-8"
        size="small"
        aria-label="Whose words"
        optionType="button"
        value={isOwn}
        onChange={(e) => setOwn(e.target.value as boolean)}
        options={[
          { value: false, label: "The wording, for all" },
          { value: true, label: "This parcel alone" },
        ]}
      />
      {isOwn ? (
        <OwnWords
          key={view.change.words === null ? "as all" : "own"}
          round={round}
          parcel={parcel}
          view={view}
          isFixed={isFixed}
        />
      ) : (
        <>
          <p className="quiet above-0">
            “{view.wordingName}”{view.wordingReason && `: ${whyWording(view.wordingReason, round.settings)}`}.
          </p>
          <WordingEditor key={view.wordingId} wording={view.wordingId} onSaved={onWorded} isFixed={isFixed} />
        </>
      )}
    </>
  );
}

function OwnWords({ round, parcel, view, isFixed }: { round: Round; parcel: Parcel; view: View; isFixed: boolean }) {
  const { changeParcel } = useRoundActions();
  const [subject, setSubject] = useState(view.written.subject);
  const [body, setBody] = useState(view.written.body);
  const [note, setNote] = useState(view.change.documentNote);
  const { words, documentNote, ...others } = view.change;
  const isReworded = subject !== view.written.subject || body !== view.written.body;
  const isChanged = isReworded || note.trim() !== documentNote;
  const isOwn = words !== null || documentNote !== "";
  return (
    <div>
      {changeParcel.error && <Alert className="below-8" type="error" title={changeParcel.error.message} />}
      <SlotText label="Subject" kind="subject" html={subject} isFixed={isFixed} onChange={setSubject} />
      <SlotText label="Message" kind="message" html={body} isFixed={isFixed} onChange={setBody} />
      <label>
        Remark on the document, above the table
        <Input.TextArea
          rows={2}
          maxLength={2_000}
          disabled={isFixed}
          value={note}
          placeholder="as agreed on the telephone on Monday"
          onChange={(e) => setNote(e.target.value)}
        />
      </label>
      {!isFixed && (
        <p>
          <Button
            type="primary"
            disabled={!isChanged}
            loading={changeParcel.isPending}
            onClick={() =>
              changeParcel.mutate({
                seen: round,
                parcel: parcel.id,
                ...others,
                words: isReworded ? { subject, body } : words,
                documentNote: note,
              })
            }
          >
            Save for this parcel
          </Button>{" "}
          {isOwn && (
            <Button
              onClick={() =>
                changeParcel.mutate({ seen: round, parcel: parcel.id, ...others, words: null, documentNote: "" })
              }
            >
              Use the wording again
            </Button>
          )}{" "}
          <span className="quiet" role="status">
            {isChanged ? "changed, not in use yet" : isOwn ? "this parcel has words of its own" : "as all have it"}
          </span>
        </p>
      )}
      {view.difference && <Difference difference={view.difference} />}
    </div>
  );
}

const shownBeside = 80;

/** A long stretch that is the same, cut to what stands beside what differs. */
const shortened = (text: string) =>
  text.length > 3 * shownBeside
    ? `${text.slice(0, shownBeside).replace(/\S*$/, "")}… ${text.slice(-shownBeside).replace(/^\S*\s/, "")}`
    : text;

/** What differs from what all others are told, word by word. */
function Difference({ difference }: { difference: Schemas["ParcelDifference"] }) {
  return (
    <section aria-label="What differs from the wording">
      <h3 className={styles.heading}>What differs from the wording</h3>
      {[difference.subject, difference.text]
        .filter((pieces) => pieces.some((p) => p.kind !== "same"))
        .map((pieces, i) => (
          <p key={i} className={styles.difference}>
            {pieces.map((p, j) =>
              p.kind === "added" ? (
                <ins key={j}>{p.text}</ins>
              ) : p.kind === "removed" ? (
                <del key={j}>{p.text}</del>
              ) : (
                <span key={j}>{shortened(p.text)}</span>
              ),
            )}
          </p>
        ))}
    </section>
  );
}
