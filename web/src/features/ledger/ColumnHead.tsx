import { Select } from "antd";
import type { Schemas } from "../../shared/api/client";
import { fields, meanings, type Column, type Field, type Meaning } from "./meanings";
import styles from "./ColumnHead.module.css";

type Intake = Schemas["IntakeView"];

/** A change of how one column is read. */
export type ColumnChange = Partial<Pick<Column, "meaning" | "field" | "mark" | "order" | "unsignedCredits">>;

/** Above a column: what it was taken for, how certain that is and why, and what it could be as well. */
export function ColumnHead({
  view,
  column,
  onSet,
}: {
  view: Intake;
  column: Column;
  onSet?: ((column: Column, change: ColumnChange) => void) | undefined;
}) {
  const label = `What “${column.heading}” is`;
  const other = view.kind === "ledger" ? column.others?.[0]?.meaning : column.otherFields?.[0];
  return (
    <>
      {view.kind === "ledger" ? (
        <Taken
          label={label}
          value={column.meaning}
          all={meanings}
          likely={(column.others ?? []).map((o) => ({ value: o.meaning, first: o.first }))}
          onSet={onSet && ((meaning: Meaning) => onSet(column, { meaning }))}
        />
      ) : (
        <Taken
          label={label}
          value={column.field}
          all={fields}
          likely={(column.otherFields ?? []).map((value) => ({ value, first: [] }))}
          onSet={onSet && ((field: Field) => onSet(column, { field }))}
        />
      )}
      <small>
        {column.isHidden && <b>hidden · </b>}
        {column.confidence === "likely" && <b>likely · </b>}
        {column.reason}
        {onSet && column.confidence !== "sure" && other && (
          <>
            {" · "}
            <button
              type="button"
              className="link"
              onClick={() =>
                onSet(column, view.kind === "ledger" ? { meaning: other as Meaning } : { field: other as Field })
              }
            >
              {[...meanings, ...fields].find((m) => m.value === other)?.label} instead
            </button>
          </>
        )}
        {column.notation && (
          <>
            {" · "}
            {onSet ? (
              <button type="button" className="link" title="Reverse" onClick={() => onSet(column, turned(column))}>
                {decided.includes(column.notation) ? `${notation(column)}, ${column.notation}` : column.notation}
              </button>
            ) : (
              column.notation
            )}
          </>
        )}
        {column.unsignedCredits && " · credits without sign"}
      </small>
    </>
  );
}

/** What a column was taken for, to be changed. */
function Taken<T extends string>({
  label,
  value,
  all,
  likely,
  onSet,
}: {
  label: string;
  value: T;
  all: { value: T; label: string }[];
  likely: { value: T; first: string[] }[];
  onSet?: ((value: T) => void) | undefined;
}) {
  return (
    <Select<T>
      className={styles.choice}
      size="small"
      disabled={!onSet}
      value={value}
      options={choices(all, likely)}
      optionRender={Choice}
      popupMatchSelectWidth={false}
      aria-label={label}
      onChange={(chosen) => onSet?.(chosen)}
    />
  );
}

/** What a column can be: first what it could well be, with what its first values would be read as. */
function choices<T extends string>(all: { value: T; label: string }[], likely: { value: T; first: string[] }[]) {
  if (likely.length === 0) {
    return all;
  }
  const others = likely.flatMap(({ value, first }) => {
    const known = all.find((m) => m.value === value);
    return known ? [{ ...known, first }] : [];
  });
  return [
    { label: "It could be", options: others },
    { label: "Anything else", options: all.filter((m) => likely.every((o) => o.value !== m.value)) },
  ];
}

function Choice({ data }: { data: { label?: React.ReactNode; first?: string[] } }) {
  return (
    <>
      {data.label}
      {data.first && data.first.length > 0 && <span className={styles.first}>{data.first.join(" · ")}</span>}
    </>
  );
}

// Who decided, where the values of the column did not.
const decided = ["set by you", "as last time"];

function turned(column: Column): ColumnChange {
  return column.mark
    ? { mark: column.mark === "point" ? "comma" : "point" }
    : {
        order:
          column.order === "day-first" ? "month-first" : column.order === "month-first" ? "year-first" : "day-first",
      };
}

function notation(column: Column): string {
  const words = {
    point: "decimal point",
    comma: "decimal comma",
    "day-first": "day first",
    "month-first": "month first",
    "year-first": "year first",
  };
  const what = column.mark ?? column.order;
  return what ? words[what] : "";
}
