import { Document } from "@tiptap/extension-document";
import { EditorContent, useEditor, useEditorState, type Editor } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { App, Select } from "antd";
import { useEffect } from "react";
import { FileButton } from "../../shared/FileButton";
import { pictureIn } from "../../shared/pictureFile";
import { useBook } from "../../shared/useBook";
import { whenWords } from "../../shared/whenWords";
import { ConditionMark } from "./ConditionMark";
import { PictureNode } from "./PictureNode";
import { useSlots } from "./slotExamples";
import { SlotNode } from "./SlotNode";
import { useWordingActions } from "./useWordings";
import wordingsStyles from "./wordings.module.css";
import styles from "./SlotText.module.css";

/** A subject is one paragraph of text and slots. */
const lineExtensions = [
  Document.extend({ content: "paragraph" }),
  StarterKit.configure({
    document: false,
    bold: false,
    italic: false,
    underline: false,
    strike: false,
    code: false,
    link: false,
    bulletList: false,
    orderedList: false,
    listItem: false,
    listKeymap: false,
    heading: false,
    blockquote: false,
    codeBlock: false,
    horizontalRule: false,
    hardBreak: false,
    trailingNode: false,
  }),
  SlotNode,
  ConditionMark,
];

const bodyExtensions = [
  StarterKit.configure({ codeBlock: false, code: false, blockquote: false, link: { openOnClick: false } }),
  SlotNode,
  ConditionMark,
];

const messageExtensions = [...bodyExtensions, PictureNode];

/** Text with slots in it: one line for a subject, paragraphs and lists for a body. */
export function SlotText({
  label,
  html,
  isLine = false,
  withPictures = false,
  isFixed,
  onChange,
}: {
  label: string;
  html: string;
  isLine?: boolean;
  withPictures?: boolean;
  isFixed: boolean;
  onChange: (html: string) => void;
}) {
  const editor = useEditor({
    extensions: isLine ? lineExtensions : withPictures ? messageExtensions : bodyExtensions,
    content: html,
    editable: !isFixed,
    editorProps: { attributes: { "aria-label": label, role: "textbox", "aria-multiline": String(!isLine) } },
    onUpdate: ({ editor: e }) => onChange(isLine ? e.getHTML().replace(/^<p>|<\/p>$/g, "") : e.getHTML()),
  });
  useEffect(() => {
    editor.setEditable(!isFixed, false);
  }, [editor, isFixed]);
  return (
    <div
      className={
        isLine
          ? `${styles.slotText} ${wordingsStyles.slotText} ${styles.line}`
          : `${styles.slotText} ${wordingsStyles.slotText}`
      }
    >
      <div className={styles.slotTools}>
        <span>{label}</span>
        {!isFixed && <Tools editor={editor} label={label} isLine={isLine} withPictures={withPictures} />}
      </div>
      <EditorContent editor={editor} />
    </div>
  );
}

function Tools({
  editor,
  label,
  isLine,
  withPictures,
}: {
  editor: Editor;
  label: string;
  isLine: boolean;
  withPictures: boolean;
}) {
  const slots = useSlots();
  return (
    <>
      {!isLine && (
        <>
          <button type="button" aria-label="Bold" onClick={() => editor.chain().focus().toggleBold().run()}>
            <b>B</b>
          </button>
          <button type="button" aria-label="Italic" onClick={() => editor.chain().focus().toggleItalic().run()}>
            <i>I</i>
          </button>
          <button type="button" aria-label="List" onClick={() => editor.chain().focus().toggleBulletList().run()}>
            •–
          </button>
        </>
      )}
      {withPictures && <PutPicture editor={editor} />}
      <When editor={editor} label={label} />
      <Select
        className="width-116"
        size="small"
        aria-label={`Put a slot into the ${label.toLowerCase()}`}
        placeholder="Insert slot"
        value={null}
        popupMatchSelectWidth={280}
        showSearch={{ optionFilterProp: "label" }}
        options={(slots.data ?? [])
          .filter((s) => !isLine || !s.isHtml)
          .map((s) => ({ value: s.name, label: s.label, says: s.says, example: s.example }))}
        optionRender={(option) => (
          <span title={option.data.says}>
            {option.label}{" "}
            {option.data.example ? (
              <small className={wordingsStyles.slotExample}>{option.data.example}</small>
            ) : (
              <small className="quiet">{option.data.says}</small>
            )}
          </span>
        )}
        onChange={(name: string | null) =>
          name && editor.chain().focus().insertContent({ type: "slot", attrs: { name } }).run()
        }
      />
    </>
  );
}

/** Puts a picture from a file where one writes. */
function PutPicture({ editor }: { editor: Editor }) {
  const { message } = App.useApp();
  const { keepPicture } = useWordingActions();
  const firm = useBook().data?.name ?? "";
  const put = async (file: File) => {
    try {
      const { number } = await keepPicture.mutateAsync({ bytes: await pictureIn(file) });
      const picture = { type: "picture", attrs: { number: String(number), says: firm } };
      const { $from } = editor.state.selection;
      const chain = editor.chain().focus();
      // At the head of a paragraph it stands above it, as a logo does.
      ($from.parentOffset === 0 && $from.depth === 1
        ? chain.insertContentAt($from.before(), { type: "paragraph", content: [picture] })
        : chain.insertContent(picture)
      ).run();
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
    }
  };
  return (
    <FileButton label="Picture" accept="image/png,image/jpeg,image/svg+xml" onTake={put}>
      Picture…
    </FileButton>
  );
}

/** Under which condition the chosen words stand; where none are chosen, the whole paragraph. */
function When({ editor, label }: { editor: Editor; label: string }) {
  const now = useEditorState({
    editor,
    selector: (s) => s.editor.getAttributes("condition")["when"] as string | undefined,
  });
  const put = (when: string) => {
    const { from, to, empty, $from } = editor.state.selection;
    const chain = editor
      .chain()
      .focus()
      .setTextSelection(empty ? { from: $from.start(), to: $from.end() } : { from, to });
    (when === "always" ? chain.unsetMark("condition") : chain.setMark("condition", { when })).run();
  };
  return (
    <Select
      className="width-132"
      size="small"
      aria-label={`When words of the ${label.toLowerCase()} stand`}
      popupMatchSelectWidth={false}
      value={now ?? "always"}
      labelRender={(chosen) => <>stands {chosen.label}</>}
      options={Object.entries(whenWords).map(([value, words]) => ({ value, label: words }))}
      onChange={put}
    />
  );
}
