import type { Schemas } from "../../shared/api/client";
import { useMeant } from "./useMeant";
import styles from "./Remarks.module.css";

/** What catches the eye in a message, the most serious first; a person can say that it is meant so, in all messages of the wording. */
export function Remarks({
  wording,
  remarks,
  isOfDraft = false,
}: {
  wording: number;
  remarks: Schemas["RemarkView"][];
  /** Whether what is meant so is told with them, as where words are being written. */
  isOfDraft?: boolean;
}) {
  const { meant, mean, meanNoMore } = useMeant(wording, isOfDraft);
  const isMeant = (r: Schemas["RemarkView"]) => meant.some((m) => m.code === r.code && m.quote === r.quote);
  const open = remarks.filter((r) => !isMeant(r));
  return (
    <>
      {open.length > 0 && (
        <ul className={styles.remarks} aria-label="What catches the eye">
          {open.map((r) => (
            <li key={`${r.code} ${r.quote}`}>
              {r.says}{" "}
              {r.place && r.place !== r.quote && (
                <small className="quiet">{r.inSubject ? `Subject: ${r.place}` : r.place}</small>
              )}{" "}
              <button type="button" className="link" onClick={() => mean.mutate({ code: r.code, quote: r.quote })}>
                It is meant so
              </button>
            </li>
          ))}
        </ul>
      )}
      {isOfDraft && remarks.length > open.length && (
        <p className="quiet">
          Meant so in this wording:{" "}
          {remarks.filter(isMeant).map((r) => (
            <span key={`${r.code} ${r.quote}`}>
              {r.says}{" "}
              <button
                type="button"
                className="link"
                onClick={() => meanNoMore.mutate({ code: r.code, quote: r.quote })}
              >
                Take that back
              </button>{" "}
            </span>
          ))}
        </p>
      )}
    </>
  );
}
