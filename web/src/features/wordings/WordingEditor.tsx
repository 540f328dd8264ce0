import { Alert, Button } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { Waiting } from "../../shared/Waiting";
import { SlotText } from "./SlotText";
import { useWordingActions, useWordings } from "./useWordings";

type Wording = Schemas["WordingView"];

/** One wording, edited where it stands. */
export function WordingEditor({
  wording,
  isFixed = false,
  onSaved,
}: {
  wording: number;
  isFixed?: boolean;
  onSaved?: () => void;
}) {
  const wordings = useWordings();
  return (
    <Waiting query={wordings}>
      {({ wordings: list }) => {
        const found = list.find((w) => w.id === wording);
        return found ? (
          <Fields key={found.id} wording={found} isFixed={isFixed} onSaved={onSaved} />
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
}: {
  wording: Wording;
  isFixed: boolean;
  onSaved: (() => void) | undefined;
}) {
  const [subject, setSubject] = useState(wording.subject);
  const [body, setBody] = useState(wording.body);
  const { save: saving } = useWordingActions();
  const { id, version, name, language } = wording;
  const isChanged = subject !== wording.subject || body !== wording.body;
  return (
    <div>
      {isFixed && (
        <p className="quiet">Parcels of this round were released with these words; they stay as they were sent.</p>
      )}
      {saving.error && <Alert className="below-8" type="error" title={saving.error.message} />}
      {wording.errors.map((error) => (
        <Alert className="below-8" key={error} type="error" title={error} />
      ))}
      <SlotText label="Subject" html={wording.subject} isLine isFixed={isFixed} onChange={setSubject} />
      <SlotText label="Message" html={wording.body} withPictures isFixed={isFixed} onChange={setBody} />
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
          </span>
        </p>
      )}
    </div>
  );
}
