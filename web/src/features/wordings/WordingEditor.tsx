import { Alert, Button } from "antd";
import { useState, type ReactNode } from "react";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { wordingFile } from "./api";
import { columnInstead, uses } from "./columnInstead";
import { GoneColumns } from "./GoneColumns";
import { SlotText } from "./SlotText";
import { Versions } from "./Versions";
import { useWordingActions, useWordings } from "./useWordings";
import styles from "./WordingEditor.module.css";

type Wording = Schemas["WordingView"];
type Draft = Pick<Schemas["WordingRequest"], "name" | "language" | "subject" | "body">;

/** One wording, edited where it stands. */
export function WordingEditor({
  wording,
  isFixed = false,
  onSaved,
  beside,
}: {
  wording: number;
  isFixed?: boolean;
  onSaved?: () => void;
  /** What stands beside it, from what it says now. */
  beside?: (draft: Draft) => ReactNode;
}) {
  const wordings = useWordings();
  return (
    <Waiting query={wordings}>
      {({ wordings: list }) => {
        const found = list.find((w) => w.id === wording);
        return found ? (
          <Fields key={found.id} wording={found} isFixed={isFixed} onSaved={onSaved} beside={beside} />
        ) : (
          <p className="quiet">This wording is not there any more.</p>
        );
      }}
    </Waiting>
  );
}

function Fields({
  wording,
  isFixed,
  onSaved,
  beside,
}: {
  wording: Wording;
  isFixed: boolean;
  onSaved: (() => void) | undefined;
  beside: ((draft: Draft) => ReactNode) | undefined;
}) {
  const [subject, setSubject] = useState(wording.subject);
  const [body, setBody] = useState(wording.body);
  // Counts what was put into the texts from without, upon which they are set up anew.
  const [given, setGiven] = useState(0);
  const book = useBookId();
  const { save: saving } = useWordingActions();
  const { id, version, name, language } = wording;
  const isChanged = subject !== wording.subject || body !== wording.body;
  const give = (texts: { subject: string; body: string }) => {
    setSubject(texts.subject);
    setBody(texts.body);
    setGiven(given + 1);
  };
  const text = { language, isFixed };
  const editor = (
    <div>
      {isFixed && (
        <p className="quiet">Parcels of this round were released with these words; they stay as they were sent.</p>
      )}
      {saving.error && <Alert className="below-8" type="error" title={saving.error.message} />}
      {wording.errors.map((error) => (
        <Alert className="below-8" key={error} type="error" title={error} />
      ))}
      <GoneColumns
        gone={wording.gone.filter(({ heading }) => uses(subject + body, heading))}
        isFixed={isFixed}
        onUse={(heading, instead) =>
          give({ subject: columnInstead(subject, heading, instead), body: columnInstead(body, heading, instead) })
        }
      />
      <SlotText
        key={`subject ${given}`}
        label="Subject"
        kind="subject"
        html={subject}
        onChange={setSubject}
        {...text}
      />
      <SlotText key={`body ${given}`} label="Message" kind="message" html={body} onChange={setBody} {...text} />
      {!isFixed && (
        <p>
          <Button
            type="primary"
            disabled={!isChanged}
            loading={saving.isPending}
            onClick={() =>
              saving.mutate({ id, version, name, language, subject, body }, { onSuccess: () => onSaved?.() })
            }
          >
            Save wording
          </Button>{" "}
          <span className="quiet" role="status">
            {isChanged ? "changed, not in use yet" : `“${wording.name}” as it is in use`}
          </span>{" "}
          <Versions wording={wording} onPutBack={give} />{" "}
          {!isChanged && (
            <a className="link" href={wordingFile(book, id)} download>
              Download
            </a>
          )}
        </p>
      )}
    </div>
  );
  return beside ? (
    <div className={styles.withReader}>
      {editor}
      {beside({ name, language, subject, body })}
    </div>
  ) : (
    editor
  );
}
