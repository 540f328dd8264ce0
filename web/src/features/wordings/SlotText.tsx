import { EditorContent, useEditor } from "@tiptap/react";
import { useEffect } from "react";
import { cleanPaste } from "./cleanPaste";
import { useSlots } from "./slotExamples";
import { SlotPicker } from "./SlotPicker";
import { extensionsOf, fitting, type TextKind } from "./textExtensions";
import { TextTools } from "./TextTools";
import { WhenTool } from "./WhenTool";
import type { SlotView } from "./slotOptions";
import wordingsStyles from "./wordings.module.css";
import styles from "./SlotText.module.css";

interface Text {
  label: string;
  html: string;
  kind: TextKind;
  /** The code of the language that it is written in, for whoever checks its spelling; empty for none. */
  language?: string;
  isFixed: boolean;
  onChange: (html: string) => void;
}

/** Text with slots in it: one line for a subject, paragraphs and lists for a body. */
export function SlotText(text: Text) {
  const slots = useSlots();
  return slots.isPending ? <p className="quiet">Loading…</p> : <Field {...text} slots={slots.data ?? []} />;
}

function Field({ label, html, kind, language = "", isFixed, onChange, slots }: Text & { slots: SlotView[] }) {
  const isLine = kind === "line" || kind === "subject";
  const editor = useEditor({
    extensions: extensionsOf(kind, slots),
    content: html,
    editable: !isFixed,
    editorProps: {
      attributes: {
        "aria-label": label,
        role: "textbox",
        "aria-multiline": String(!isLine),
        spellcheck: String(language !== ""),
        ...(language && { lang: language }),
      },
      transformPastedHTML: cleanPaste,
    },
    onUpdate: ({ editor: e }) => onChange(isLine ? e.getHTML().replace(/^<p>|<\/p>$/g, "") : e.getHTML()),
  });
  useEffect(() => {
    editor.setEditable(!isFixed, false);
  }, [editor, isFixed]);
  return (
    <div className={`${styles.slotText} ${wordingsStyles.slotText} ${isLine ? styles.line : ""}`}>
      <div className={styles.slotTools}>
        <span>{label}</span>
        {!isFixed && (
          <div role="toolbar" aria-label={`Tools of the ${label.toLowerCase()}`} className={styles.tools}>
            {!isLine && <TextTools editor={editor} isMessage={kind === "message"} />}
            <button
              type="button"
              aria-label={`Put a choice of a word into the ${label.toLowerCase()}`}
              title="A word by a value: his, her or their"
              onClick={() => editor.chain().focus().insertContent({ type: "choice", attrs: {} }).run()}
            >
              choice
            </button>
            <WhenTool editor={editor} label={label} slots={slots} />
            <SlotPicker editor={editor} label={label} slots={fitting(slots, kind)} />
          </div>
        )}
      </div>
      <EditorContent editor={editor} />
    </div>
  );
}
