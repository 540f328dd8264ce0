import { App, Select } from "antd";
import type { Schemas } from "../../shared/api/client";
import { languages } from "../../shared/languages";
import { Uses } from "../../shared/Uses";
import { useWordingActions } from "./useWordings";

/** The language that a wording is written in, and what it is used for. */
export function WrittenIn({ wording, list }: { wording: Schemas["WordingView"]; list: Schemas["WordingList"] }) {
  const { message } = App.useApp();
  const { save, use } = useWordingActions();
  const { id, version, name, subject, body } = wording;
  return (
    <>
      <section className="uses" aria-label="Written in">
        <h2>Written in</h2>
        <Select
          size="small"
          aria-label="Language that it is written in"
          popupMatchSelectWidth={false}
          value={wording.language}
          options={languages}
          loading={save.isPending}
          onChange={(language) =>
            save.mutate(
              { id, version, name, language, subject, body },
              { onError: (e) => void message.error(e.message) },
            )
          }
        />
      </section>
      <Uses id={id} list={list} use={use} />
      <p className="quiet uses">
        Used for a language, it goes to customers who are written to in it, unless the round or their card says
        otherwise.
      </p>
    </>
  );
}
