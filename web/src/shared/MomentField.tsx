import { momentForms, readMoment } from "./typedDay";
import { TypedPicker } from "./TypedPicker";

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
    <TypedPicker
      className="width-190"
      aria-label={label}
      size="small"
      placeholder={placeholder}
      showTime={{ format: "HH:mm" }}
      value={value}
      mayBeEmpty
      iso="YYYY-MM-DDTHH:mm"
      format={momentForms}
      read={readMoment}
      unread="is not a day with a time. Write it as 2 Nov 2026, 07:30."
      onChange={onChange}
    />
  );
}
