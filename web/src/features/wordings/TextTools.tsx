import { useEditorState, type Editor } from "@tiptap/react";
import { App, Dropdown, Input, Modal } from "antd";
import { useState } from "react";
import { FileButton } from "../../shared/FileButton";
import { pictureIn } from "../../shared/pictureFile";
import { useBook } from "../../shared/useBook";
import { colours, sizes } from "./textExtensions";
import { useWordingActions } from "./useWordings";
import styles from "./TextTools.module.css";

type Chain = ReturnType<Editor["chain"]>;

// As a drawing: signs that read as words would have to be in the name of the button too.
const numbered = (
  <svg width="14" height="12" viewBox="0 0 14 12" fill="none" stroke="currentColor" aria-hidden>
    <path d="M1.5 1v4M5 3h8M.5 7.5h2l-2 3h2M5 9h8" />
  </svg>
);

/** How the chosen words look, and what a person can take back. */
export function TextTools({ editor, isMessage }: { editor: Editor; isMessage: boolean }) {
  const now = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      active: new Set(
        ["bold", "italic", "underline", "bulletList", "orderedList", "link", "heading"].filter((name) =>
          e.isActive(name),
        ),
      ),
      align: ["center", "right"].find((side) => e.isActive({ textAlign: side })) ?? "left",
      canUndo: e.can().undo(),
      canRedo: e.can().redo(),
    }),
  });
  const tool = (label: string, name: string, shown: React.ReactNode, act: (chain: Chain) => Chain) => (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={now.active.has(name)}
      onClick={() => act(editor.chain().focus()).run()}
    >
      {shown}
    </button>
  );
  return (
    <>
      {tool("Bold", "bold", <b>B</b>, (c) => c.toggleBold())}
      {tool("Italic", "italic", <i>I</i>, (c) => c.toggleItalic())}
      {isMessage && tool("Underline", "underline", <u>U</u>, (c) => c.toggleUnderline())}
      {isMessage && tool("Heading", "heading", "H", (c) => c.toggleHeading({ level: 2 }))}
      {tool("List", "bulletList", "•–", (c) => c.toggleBulletList())}
      {isMessage && tool("Numbered list", "orderedList", numbered, (c) => c.toggleOrderedList())}
      {isMessage && (
        <>
          <Looks editor={editor} align={now.align} />
          <LinkTool editor={editor} isOn={now.active.has("link")} />
          <PutPicture editor={editor} />
        </>
      )}
      <button
        type="button"
        aria-label="Undo"
        title="Undo"
        disabled={!now.canUndo}
        onClick={() => editor.chain().focus().undo().run()}
      >
        ↶
      </button>
      <button
        type="button"
        aria-label="Redo"
        title="Redo"
        disabled={!now.canRedo}
        onClick={() => editor.chain().focus().redo().run()}
      >
        ↷
      </button>
    </>
  );
}

/** Size, colour and side of the chosen words, and a rule. */
function Looks({ editor, align }: { editor: Editor; align: string }) {
  const chain = () => editor.chain().focus();
  return (
    <Dropdown
      trigger={["click"]}
      menu={{
        items: [
          {
            type: "group",
            label: "Size",
            children: sizes.map(({ label, size }) => ({
              key: `size ${label}`,
              label: <span style={{ fontSize: size || undefined }}>{label}</span>,
              onClick: () => (size ? chain().setFontSize(size).run() : chain().unsetFontSize().run()),
            })),
          },
          {
            type: "group",
            label: "Colour",
            children: colours.map(({ label, colour }) => ({
              key: `colour ${label}`,
              label: <span style={{ color: colour || undefined }}>{label}</span>,
              onClick: () => (colour ? chain().setColor(colour).run() : chain().unsetColor().run()),
            })),
          },
          {
            type: "group",
            label: "Side",
            children: ["left", "center", "right"].map((side) => ({
              key: `side ${side}`,
              label: `${side === "center" ? "in the middle" : `to the ${side}`}${side === align ? " ✓" : ""}`,
              onClick: () => chain().setTextAlign(side).run(),
            })),
          },
          { type: "divider" },
          { key: "rule", label: "Put a rule", onClick: () => chain().setHorizontalRule().run() },
        ],
      }}
    >
      <button type="button" aria-label="Look: size, colour and side">
        Look ▾
      </button>
    </Dropdown>
  );
}

/** Makes a link of the chosen words, or takes it off. */
function LinkTool({ editor, isOn }: { editor: Editor; isOn: boolean }) {
  const [address, setAddress] = useState<string>();
  const trimmed = (address ?? "").trim();
  const target = /^\S+@\S+\.\S+$/.test(trimmed)
    ? `mailto:${trimmed}`
    : /^(https?:\/\/|mailto:)/i.test(trimmed)
      ? trimmed
      : trimmed && `https://${trimmed}`;
  const put = () => {
    const chain = editor.chain().focus().extendMarkRange("link");
    if (!target) {
      chain.unsetLink().run();
    } else if (editor.state.selection.empty && !isOn) {
      chain.insertContent({ type: "text", text: trimmed, marks: [{ type: "link", attrs: { href: target } }] }).run();
    } else {
      chain.setLink({ href: target }).run();
    }
    setAddress(undefined);
  };
  return (
    <>
      <button
        type="button"
        aria-label="Link"
        title="Link"
        aria-pressed={isOn}
        onClick={() => setAddress((editor.getAttributes("link")["href"] as string | undefined) ?? "")}
      >
        Link
      </button>
      <Modal
        open={address !== undefined}
        title="Where the link leads"
        okText={target ? "Put the link" : "Take the link off"}
        okButtonProps={{ disabled: !target && !isOn }}
        onCancel={() => setAddress(undefined)}
        onOk={put}
        destroyOnHidden
      >
        <Input
          autoFocus
          aria-label="Where the link leads"
          placeholder="https://www.tarnbrook.example/terms, or an e-mail address"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          onPressEnter={() => target && put()}
        />
      </Modal>
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
    <span className={styles.picture}>
      <FileButton label="Picture" accept="image/png,image/jpeg,image/svg+xml" onTake={put}>
        Picture…
      </FileButton>
    </span>
  );
}
