import { Select } from "antd";
import roundsStyles from "./rounds.module.css";

/** A column of the file, or none. One that is chosen stays in the list where the file lacks it. */
export function ColumnField({
  label,
  value,
  columns,
  disabled,
  onDone,
}: {
  label: string;
  value: string;
  columns: string[];
  disabled: boolean;
  onDone: (column: string) => void;
}) {
  const offered = [...new Set([...columns, ...(value ? [value] : [])])];
  return offered.length > 0 ? (
    <div className={roundsStyles.choiceStack}>
      <span>{label}</span>
      <Select
        className="whole-width"
        size="small"
        aria-label={label}
        popupMatchSelectWidth={false}
        value={value}
        disabled={disabled}
        options={[{ value: "", label: "none" }, ...offered.map((c) => ({ value: c, label: c }))]}
        onChange={onDone}
      />
    </div>
  ) : null;
}
