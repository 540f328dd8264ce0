import { useQuery } from "@tanstack/react-query";
import { EditorContent, useEditor } from "@tiptap/react";
import { Button, Modal } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { moment } from "../../shared/figure";
import { useBook, useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { wordingVersion, wordingVersions } from "./api";
import { blocksOf, changedBlocks, markBlocks } from "./changedBlocks";
import { useSlots } from "./slotExamples";
import { extensionsOf, type TextKind } from "./textExtensions";
import slotTextStyles from "./SlotText.module.css";
import styles from "./Versions.module.css";
import wordingsStyles from "./wordings.module.css";

type Texts = Pick<Schemas["Wording"], "subject" | "body">;

const changedWords: Record<Schemas["WordingChange"], string> = {
  name: "name",
  language: "language",
  subject: "subject",
  body: "message",
};

/** What a wording was, by whom and when; an earlier one beside the one that is in use, to be put back. */
export function Versions({
  wording,
  onPutBack,
}: {
  wording: Schemas["WordingView"];
  onPutBack: (texts: Texts) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="link" onClick={() => setOpen(true)}>
        Versions…
      </button>
      {open && (
        <Modal open footer={null} title={`Versions of “${wording.name}”`} width={1120} onCancel={() => setOpen(false)}>
          <List
            wording={wording}
            onPutBack={(texts) => {
              setOpen(false);
              onPutBack(texts);
            }}
          />
        </Modal>
      )}
    </>
  );
}

function List({ wording, onPutBack }: { wording: Schemas["WordingView"]; onPutBack: (texts: Texts) => void }) {
  const book = useBookId();
  const zone = useBook().data?.timeZone;
  const [picked, setPicked] = useState<number>();
  const versions = useQuery({
    queryKey: ["wording-versions", book, wording.id, wording.version],
    queryFn: () => wordingVersions(book, wording.id),
  });
  return (
    <Waiting query={versions}>
      {(list) => {
        const shown = picked ?? list[1]?.change ?? list[0]?.change;
        return (
          <div className={styles.versions}>
            <nav className="side-list" aria-label="Versions">
              {list.map((v, place) => (
                <button
                  key={v.change}
                  type="button"
                  aria-current={v.change === shown}
                  onClick={() => setPicked(v.change)}
                >
                  {moment(v.at, zone)} {v.by && `· ${v.by}`}
                  <small className="quiet">
                    {v.isAdded ? "as it was added" : v.changed.map((c) => changedWords[c]).join(", ")}
                    {place === 0 && " · in use"}
                  </small>
                </button>
              ))}
            </nav>
            {shown !== undefined && (
              <Beside
                key={shown}
                wording={wording}
                change={shown}
                isInUse={shown === list[0]?.change}
                onPutBack={onPutBack}
              />
            )}
          </div>
        );
      }}
    </Waiting>
  );
}

function Beside({
  wording,
  change,
  isInUse,
  onPutBack,
}: {
  wording: Schemas["WordingView"];
  change: number;
  isInUse: boolean;
  onPutBack: (texts: Texts) => void;
}) {
  const book = useBookId();
  const version = useQuery({
    queryKey: ["wording-version", book, wording.id, change],
    queryFn: () => wordingVersion(book, wording.id, change),
  });
  return (
    <Waiting query={version}>
      {(then) => {
        const subject = changedBlocks(blocksOf(then.subject, "subject"), blocksOf(wording.subject, "subject"));
        const body = changedBlocks(blocksOf(then.body, "message"), blocksOf(wording.body, "message"));
        return (
          <div className={styles.beside}>
            <section aria-label="This version">
              <h3>This version</h3>
              <FixedText label="Subject of this version" kind="subject" html={then.subject} changed={subject.then} />
              <FixedText label="Message of this version" kind="message" html={then.body} changed={body.then} />
              {!isInUse && (
                <Button onClick={() => onPutBack({ subject: then.subject, body: then.body })}>Put it back</Button>
              )}
            </section>
            <section aria-label="In use">
              <h3>In use</h3>
              <FixedText label="Subject in use" kind="subject" html={wording.subject} changed={subject.now} />
              <FixedText label="Message in use" kind="message" html={wording.body} changed={body.now} />
            </section>
          </div>
        );
      }}
    </Waiting>
  );
}

function FixedText(text: { label: string; kind: TextKind; html: string; changed: Set<number> }) {
  const slots = useSlots();
  return slots.data ? <Marked {...text} slots={slots.data} /> : null;
}

function Marked({
  label,
  kind,
  html,
  changed,
  slots,
}: {
  label: string;
  kind: TextKind;
  html: string;
  changed: Set<number>;
  slots: Schemas["SlotView"][];
}) {
  const editor = useEditor({
    extensions: [...extensionsOf(kind, slots), markBlocks(changed, styles.changed ?? "")],
    content: html,
    editable: false,
    editorProps: { attributes: { "aria-label": label, role: "textbox", "aria-readonly": "true" } },
  });
  return (
    <div
      className={`${slotTextStyles.slotText} ${wordingsStyles.slotText} ${styles.text} ${kind === "subject" ? slotTextStyles.line : ""}`}
    >
      <EditorContent editor={editor} />
    </div>
  );
}
