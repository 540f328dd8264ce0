import { dayForms, readDay } from "./typedDay";
import { TypedPicker } from "./TypedPicker";

/** A day, shown as the trade writes it and given as ISO; typed as `readDay` has it. */
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
    <TypedPicker
      aria-label={label}
      size={size}
      placeholder={placeholder}
      value={value}
      iso="YYYY-MM-DD"
      format={dayForms}
      read={readDay}
      unread="is not a day. Write it as 31 Oct 2026 or 31/10/2026."
      disabled={disabled}
      onChange={onChange}
    />
  );
}
