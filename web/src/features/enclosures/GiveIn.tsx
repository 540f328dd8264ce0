import { Alert, Button } from "antd";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { count } from "../../shared/figure";
import { WorkBar } from "../../shared/WorkBar";
import styles from "./GiveIn.module.css";
import type { useGiveIn } from "./useGiveIn";

/** Takes files by buttons, and what came of them; they can be dropped on whatever is inside. */
export function GiveIn({
  giving,
  folders = false,
  children,
}: {
  giving: ReturnType<typeof useGiveIn>;
  /** Whether whole folders are taken, too. */
  folders?: boolean;
  children?: ReactNode;
}) {
  const [isOver, setIsOver] = useState(false);
  const give = (files: File[]) => {
    if (files.length > 0 && !giving.isPending) {
      giving.mutate(files);
    }
  };
  return (
    <div
      className={isOver ? styles.over : undefined}
      onDragOver={(e) => {
        if (e.dataTransfer.types.includes("Files")) {
          e.preventDefault();
          setIsOver(true);
        }
      }}
      onDragLeave={() => setIsOver(false)}
      onDrop={(e) => {
        if (e.dataTransfer.types.includes("Files")) {
          e.preventDefault();
          setIsOver(false);
          void dropped(e.dataTransfer).then(give);
        }
      }}
    >
      <div className={styles.buttons}>
        <Files label="Add files" disabled={giving.isPending} onFiles={give}>
          Add files…
        </Files>
        {folders && (
          <Files label="Add folder" disabled={giving.isPending} folder onFiles={give}>
            Add folder…
          </Files>
        )}
      </div>
      {giving.progress && <WorkBar progress={giving.progress} onStop={giving.stop} />}
      {giving.error && giving.error.name !== "AbortError" && (
        <Alert className="above-8" type="error" title={giving.error.message} />
      )}
      {giving.data && <Outcome key={giving.submittedAt} {...giving.data} />}
      {children}
    </div>
  );
}

function Outcome({
  added,
  known,
  refused,
}: {
  added: number;
  known: number;
  refused: { name: string; reason: string }[];
}) {
  return (
    <Alert
      className="above-8"
      type={refused.length > 0 ? "warning" : "success"}
      closable
      title={
        <>
          {count(added, "file")} added{known > 0 && `, ${known} there already`}
          {refused.length > 0 && `, ${refused.length} not taken`}.
        </>
      }
      description={
        refused.length > 0 && (
          <ul className={styles.refused}>
            {refused.slice(0, 50).map((r, i) => (
              <li key={i}>
                {r.name} {r.reason}
              </li>
            ))}
            {refused.length > 50 && <li>and {refused.length - 50} more</li>}
          </ul>
        )
      }
    />
  );
}

function Files({
  label,
  disabled,
  folder = false,
  children,
  onFiles,
}: {
  label: string;
  disabled: boolean;
  folder?: boolean;
  children: ReactNode;
  onFiles: (files: File[]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  // React knows no attribute for folders.
  useEffect(() => {
    input.current?.toggleAttribute("webkitdirectory", folder);
  }, [folder]);
  return (
    <>
      <Button size="small" disabled={disabled} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          onFiles(files);
        }}
      />
    </>
  );
}

/** The files that were dropped, with those in folders. */
async function dropped(data: DataTransfer): Promise<File[]> {
  // Both at once: after the first wait the browser takes what was dropped away. What comes from another program may have no entry.
  const items = [...data.items].map((item) => ({ entry: item.webkitGetAsEntry(), file: item.getAsFile() }));
  const found = await Promise.all(
    items.map(async ({ entry, file }) => (entry ? await filesIn(entry) : [file].filter((f) => f !== null))),
  );
  return found.flat();
}

async function filesIn(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) {
    return [await new Promise<File>((done, failed) => (entry as FileSystemFileEntry).file(done, failed))];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: File[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((done, failed) => reader.readEntries(done, failed));
    if (some.length === 0) {
      return found;
    }
    found.push(...(await Promise.all(some.map(filesIn))).flat());
  }
}
