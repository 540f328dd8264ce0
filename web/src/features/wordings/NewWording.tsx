import { App, Button, Input, Select } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { FileButton } from "../../shared/FileButton";
import { languages } from "../../shared/languages";
import { purposeWords } from "../../shared/purposes";
import { useReadyMadeWordings, useWordingActions } from "./useWordings";
import styles from "./NewWording.module.css";

/**
 * Adds a wording: a copy of the one in view, an empty one, one out of a file, or a ready-made one, which is used at once where the book
 * has none for its purpose in its language.
 */
export function NewWording({
  list,
  from,
  onMade,
}: {
  list: Schemas["WordingList"];
  from: Schemas["WordingView"] | undefined;
  onMade: (id: number) => void;
}) {
  const { message } = App.useApp();
  const { add, take: takeFile, use } = useWordingActions();
  const ready = useReadyMadeWordings();
  const [name, setName] = useState("");
  const onError = (e: Error) => void message.error(e.message, 8);
  const take = ({ purpose, wording }: Schemas["ReadyMadeWording"]) =>
    add.mutate(
      { ...wording, version: 0 },
      {
        onSuccess: (made) => {
          onMade(made.id);
          if (purpose !== "" && !list.uses.some((u) => u.purpose === purpose && u.language === wording.language)) {
            use.mutate({ purpose, language: wording.language, id: made.id }, { onError });
          }
        },
        onError,
      },
    );
  const make = ({ language, subject, body }: Pick<Schemas["WordingView"], "language" | "subject" | "body">) =>
    add.mutate(
      { name, language, subject, body, version: 0 },
      {
        onSuccess: (made) => {
          setName("");
          onMade(made.id);
        },
        onError,
      },
    );
  return (
    <>
      {from && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            make(from);
          }}
        >
          <Input
            size="small"
            aria-label="Name of the new wording"
            placeholder="Name of a new one"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button size="small" htmlType="submit" disabled={!name.trim()} loading={add.isPending}>
            Copy
          </Button>
          <Button
            size="small"
            disabled={!name.trim()}
            title="With nothing in it"
            onClick={() => make({ language: from.language, subject: "", body: "<p></p>" })}
          >
            Empty
          </Button>
        </form>
      )}
      <Select
        className={styles.readyMadeWords}
        size="small"
        aria-label="Add a ready-made wording"
        placeholder="Add a ready-made one…"
        popupMatchSelectWidth={false}
        loading={ready.isPending}
        value={null}
        options={languages
          .map((l) => ({
            label: l.label,
            options: (ready.data ?? [])
              .filter((r) => r.wording.language === l.value)
              .map((r) => ({
                value: `${l.value} ${r.purpose}`,
                label: r.purpose === "" ? r.wording.name : `${r.wording.name} · ${purposeWords(r.purpose)}`,
              })),
          }))
          .filter((l) => l.options.length > 0)}
        onChange={(picked: string | null) => {
          const found = ready.data?.find((r) => `${r.wording.language} ${r.purpose}` === picked);
          if (found) {
            take(found);
          }
        }}
      />
      <div className={styles.fromFile}>
        <FileButton
          label="Wording file"
          accept="text/html,.html"
          onTake={(file) => takeFile.mutateAsync(file).then(({ id }) => onMade(id), onError)}
        >
          Take from a file…
        </FileButton>
      </div>
    </>
  );
}
