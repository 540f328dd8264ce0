import { DatePicker, type DatePickerProps } from "antd";
import dayjs from "dayjs";
import { useEffect, useMemo, useRef, useState } from "react";
import styles from "./TypedPicker.module.css";

type Picked = DatePickerProps["value"];

/**
 * A day or a moment of it, typed or picked. What was typed is taken when the field is left, whatever happens beside it
 * meanwhile. What cannot be read stays where it is and is told; a form with it is not sent.
 */
export function TypedPicker({
  value,
  iso,
  read,
  unread,
  mayBeEmpty = false,
  onChange,
  ...rest
}: Omit<DatePickerProps, "value" | "onChange"> & {
  /** Written as `iso` says; empty for none. */
  value: string;
  iso: string;
  read: (text: string) => dayjs.Dayjs | undefined;
  /** Said after what was typed where it cannot be read: "is not a day. …". */
  unread: string;
  /** Whether taking away all of its text means none; otherwise the last value comes back. */
  mayBeEmpty?: boolean;
  onChange: (value: string) => void;
}) {
  const field = useRef<HTMLSpanElement>(null);
  const [drawn, setDrawn] = useState(0);
  // The picker takes up its value again, and forgets what is being typed, whenever it is given another object for it.
  const held = useMemo(() => (value ? dayjs(value) : null), [value]);
  const typed = useRef<{ over: string; day: dayjs.Dayjs } | undefined>(undefined);
  const [puzzle, setPuzzle] = useState<{ over: string; text: string; left: boolean }>();
  const wrong = puzzle?.over === value ? puzzle : undefined;
  const says = wrong && `“${wrong.text}” ${unread}`;
  useEffect(() => field.current?.querySelector("input")?.setCustomValidity(says ?? ""), [says]);
  const pending = () => (typed.current?.over === value ? typed.current.day : undefined);
  const take = (day: Picked) => {
    typed.current = undefined;
    setPuzzle(undefined);
    const written = dayjs.isDayjs(day) ? day.format(iso) : "";
    if (written !== value) {
      onChange(written);
    }
  };
  const type = (text: string) => {
    const day = read(text);
    typed.current = day && { over: value, day };
    setPuzzle(text.trim() && !day ? { over: value, text: text.trim(), left: false } : undefined);
  };
  // By itself the picker would wait for the next picture on the screen; a click elsewhere may come before it.
  const leave = (text: string) => {
    const day = pending();
    if (day) {
      take(day);
    } else if (wrong) {
      setPuzzle({ ...wrong, left: true });
    } else if (!text && value) {
      if (mayBeEmpty) {
        take(null);
      } else {
        setDrawn(drawn + 1);
      }
    }
  };
  return (
    <span ref={field} className="typed-field" onInput={(e) => type((e.target as HTMLInputElement).value)}>
      <DatePicker
        key={drawn}
        className="whole-width"
        {...rest}
        needConfirm={false}
        allowClear={false}
        previewValue={false}
        preserveInvalidOnBlur
        status={wrong?.left ? "error" : undefined}
        value={held}
        // The picker reads fewer forms, and would submit what it last could read of what was typed.
        onChange={(day) => {
          const meant = pending() ?? (wrong ? undefined : day);
          if (meant) {
            take(meant);
          }
        }}
        onCalendarChange={(day) => {
          if (dayjs.isDayjs(day)) {
            typed.current = { over: value, day };
            setPuzzle(undefined);
          }
        }}
        onKeyDown={(e) => e.key === "Enter" && pending() && take(pending())}
        onBlur={(e) => leave((e.target as HTMLInputElement).value)}
      />
      {wrong?.left && (
        <span role="alert" className={styles.typedWrong}>
          {says}
        </span>
      )}
    </span>
  );
}
