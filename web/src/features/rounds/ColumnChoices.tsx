import { useQuery } from "@tanstack/react-query";
import { Select } from "antd";
import { useState } from "react";

import { useBookId } from "../../shared/useBook";
import { Part } from "./ChoiceFields";
import type { Round, RoundSettings } from "./useRound";
import roundsStyles from "./rounds.module.css";
import { columnValues } from "./api";

/** Rows are chosen by their values in a column of the file. One that is chosen by stays; another can be added. */
export function Columns({
  round,
  disabled,
  onDone,
}: {
  round: Round;
  disabled: boolean;
  onDone: (columns: RoundSettings["columns"]) => void;
}) {
  const chosen = round.settings.columns;
  const [added, setAdded] = useState<string>();
  const shown = [...Object.keys(chosen), ...(added && !chosen[added] ? [added] : [])];
  const rest = round.columns.filter((c) => !shown.includes(c));
  return (
    <Part title="Columns of the file">
      {shown.map((column) => (
        <Values
          key={column}
          round={round}
          column={column}
          value={chosen[column] ?? []}
          disabled={disabled}
          onDone={(values) => {
            const others = Object.entries(chosen).filter(([c]) => c !== column);
            setAdded(undefined);
            onDone(Object.fromEntries(values.length > 0 ? [...others, [column, values]] : others));
          }}
        />
      ))}
      {rest.length > 0 && (
        <Select
          size="small"
          aria-label="Choose by a column"
          placeholder="choose by…"
          popupMatchSelectWidth={false}
          showSearch
          value={null}
          disabled={disabled}
          options={rest.map((c) => ({ value: c, label: c }))}
          onChange={(column: string | null) => setAdded(column ?? undefined)}
        />
      )}
    </Part>
  );
}

function Values({
  round,
  column,
  value,
  disabled,
  onDone,
}: {
  round: Round;
  column: string;
  value: string[];
  disabled: boolean;
  onDone: (values: string[]) => void;
}) {
  const book = useBookId();
  const values = useQuery({
    queryKey: ["values", book, round.intakeId, column],
    queryFn: () => columnValues(book, round.id, column),
  });
  return (
    <div className={roundsStyles.choiceStack}>
      <span>{column}</span>
      <Select
        className="whole-width"
        mode="multiple"
        size="small"
        aria-label={column}
        placeholder="any"
        popupMatchSelectWidth={false}
        loading={values.isPending}
        value={value}
        disabled={disabled}
        options={(values.data ?? []).map((v) => ({ value: v, label: v || "none given" }))}
        onChange={onDone}
      />
    </div>
  );
}
