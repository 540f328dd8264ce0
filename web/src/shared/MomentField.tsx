import { DatePicker } from "antd";
import dayjs from "dayjs";

const written = ["D MMM YYYY, HH:mm", "D MMM YYYY HH:mm", "D/M/YYYY HH:mm", "D.M.YYYY HH:mm", "YYYY-MM-DD HH:mm"];

/** A day and a time of it, by the clock of the book; given as 2026-11-02T07:30, empty for none. */
export function MomentField({
  label,
  value,
  placeholder,
  onChange,
}: {
  label: string;
  value: string;
  placeholder: string;
  onChange: (moment: string) => void;
}) {
  return (
    <DatePicker
      aria-label={label}
      size="small"
      style={{ width: 190 }}
      placeholder={placeholder}
      showTime={{ format: "HH:mm" }}
      format={written}
      value={value ? dayjs(value) : null}
      onChange={(moment: dayjs.Dayjs | null) => onChange(moment ? moment.format("YYYY-MM-DDTHH:mm") : "")}
    />
  );
}
