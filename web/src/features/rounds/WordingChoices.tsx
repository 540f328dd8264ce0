import { Select } from "antd";
import { Link } from "react-router";
import { useBookId } from "../../shared/useBook";
import { useWordings } from "../wordings/useWordings";
import { Part } from "./ChoiceFields";
import { ColumnField } from "./ColumnField";
import { useRemarks } from "./RoundRemarks";
import type { Round, RoundSettings } from "./useRound";
import roundsStyles from "./rounds.module.css";

/** Stands for the wording of each customer. */
const ofEach = 0;

/** Whose words go: those of each customer, one wording for all, or what a column of the file names. */
export function WordingChoices({
  round,
  disabled,
  onDone,
}: {
  round: Round;
  disabled: boolean;
  onDone: (change: Partial<RoundSettings>) => void;
}) {
  const book = useBookId();
  const wordings = useWordings();
  const inUse = useRemarks(round).data?.wordings ?? [];
  const { wordingId, wordingColumn, reminderLevels } = round.settings;
  return (
    <Part title="Words">
      <Select
        size="small"
        aria-label="Wording"
        loading={wordings.isPending}
        value={wordings.data ? (wordingId ?? ofEach) : undefined}
        disabled={disabled}
        popupMatchSelectWidth={false}
        options={[
          { value: ofEach, label: "as set for each" },
          ...(wordings.data?.wordings ?? []).map((w) => ({ value: w.id, label: `${w.name}, for all` })),
        ]}
        onChange={(id: number) => onDone({ wordingId: id === ofEach ? null : id })}
      />
      {inUse.length > 0 && (
        <ul className={`quiet ${roundsStyles.inUse}`} aria-label="Messages by wording">
          {inUse.map((w) => (
            <li key={w.wording}>
              {w.parcels} with {w.name}
            </li>
          ))}
        </ul>
      )}
      {reminderLevels !== null && wordingId === null && (
        <span className="quiet">
          A level can have <Link to={`/books/${book}/words?part=figures`}>its own</Link>.
        </span>
      )}
      <ColumnField
        label="Wording named in column"
        value={wordingColumn}
        columns={round.columns}
        disabled={disabled}
        onDone={(column) => onDone({ wordingColumn: column })}
      />
    </Part>
  );
}
