import { App } from "antd";
import { upload, type Schemas } from "../../shared/api/client";
import { FileButton } from "../../shared/FileButton";
import { useBookId } from "../../shared/useBook";
import type { Layout } from "./useLayouts";
import { served } from "../../shared/served";

/** Takes a letter that was written in a word processor: what is in it is told, and what has to be put right there. */
export function BringLetter({ label, onTake }: { label: string; onTake: (layout: Layout) => void }) {
  const book = useBookId();
  const { message, modal } = App.useApp();
  const take = async (file: File) => {
    let brought: Schemas["ReadDocxTemplate"];
    try {
      brought = await upload(served(`/api/books/${book}/layouts/letter`), file);
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
      return;
    }
    if (brought.layout === null) {
      modal.error({
        title: `${file.name} cannot be used yet`,
        width: 620,
        content: (
          <>
            <ul>
              {brought.problems.map((problem) => (
                <li key={problem}>{problem}</li>
              ))}
            </ul>
            <p>
              {brought.slots.length > 0 && `Found and known: ${brought.slots.join(", ")}. `}
              Correct it in your word processor and upload it again.
            </p>
          </>
        ),
      });
      return;
    }
    onTake(brought.layout as Layout);
  };
  return (
    <FileButton
      label={label}
      accept=".docx,application/vnd.openxmlformats-officedocument.wordprocessingml.document"
      onTake={take}
    >
      {label}
    </FileButton>
  );
}
