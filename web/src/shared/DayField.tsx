import { DatePicker } from "antd";
import dayjs from "dayjs";

const written = ["D MMM YYYY", "D/M/YYYY", "D.M.YYYY", "YYYY-MM-DD"];

/** A day, shown as the trade writes it and given as ISO; typed as 31 Oct 2026, 31/10/2026, 31.10.2026 or 2026-10-31. */
export function DayField({
  label,
  value,
  disabled = false,
  size,
  placeholder = "",
  onChange,
}: {
  label: string;
  value: string;
  disabled?: boolean;
  size?: "small";
  placeholder?: string;
  onChange: (iso: string) => void;
}) {
  return (
    <DatePicker
      aria-label={label}
      size={size}
      placeholder={placeholder}
      value={value ? dayjs(value) : null}
      format={written}
      allowClear={false}
      disabled={disabled}
      onChange={(day: dayjs.Dayjs | null) => day && onChange(day.format("YYYY-MM-DD"))}
    />
  );
}
