import { App, Button, Select } from "antd";
import { useState } from "react";
import type { Schemas } from "./api/client";
import { languages } from "./languages";
import { purposeWords } from "./purposes";

/** What a layout or a wording is used for: which purpose, in which language. Where another was used before, this one takes its place. */
export function Uses({
  id,
  list,
  use,
}: {
  id: number;
  list: { uses: Schemas["TemplateAssignment"][]; purposes: string[] };
  use: {
    mutate: (of: Schemas["AssignmentRequest"], options: { onError: (e: Error) => void }) => void;
    isPending: boolean;
  };
}) {
  const { message } = App.useApp();
  const [purpose, setPurpose] = useState("statement");
  const [language, setLanguage] = useState("");
  const mine = list.uses.filter((u) => u.id === id);
  const put = (of: { purpose: string; language: string; id: number | null }) =>
    use.mutate(of, { onError: (e) => void message.error(e.message) });
  return (
    <section className="uses" aria-label="Used for">
      <h2>Used for</h2>
      {mine.length === 0 && <p className="quiet">Nothing yet.</p>}
      <ul>
        {mine.map((u) => {
          const words = `${purposeWords(u.purpose)}${u.language ? `, ${nameOf(u.language)}` : ""}`;
          return (
            <li key={`${u.purpose} ${u.language}`}>
              {words}{" "}
              <button
                type="button"
                className="link"
                disabled={use.isPending}
                onClick={() => put({ purpose: u.purpose, language: u.language, id: null })}
              >
                no more<span className="visually-hidden"> for {words}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <Select
        size="small"
        aria-label="Use for"
        popupMatchSelectWidth={false}
        value={purpose}
        options={list.purposes.map((p) => ({ value: p, label: purposeWords(p) }))}
        onChange={setPurpose}
      />
      <Select
        size="small"
        aria-label="In the language"
        popupMatchSelectWidth={false}
        value={language}
        options={[{ value: "", label: "any language" }, ...languages]}
        onChange={setLanguage}
      />
      <Button size="small" loading={use.isPending} onClick={() => put({ purpose, language, id })}>
        Assign
      </Button>
    </section>
  );
}

const nameOf = (code: string) => languages.find((l) => l.value === code)?.label ?? code;
