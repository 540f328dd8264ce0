import { useState, type ReactNode } from "react";
import { DayField } from "../../shared/DayField";
import { AmountField } from "../../shared/AmountField";

/** A part of the choices under its title. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

/** A choice beside what it is called. */
export function Line({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="choice-line">
      <span>{label}</span>
      {children}
    </div>
  );
}

/** The first and the last day that are wanted; either may be open. */
export function Span({
  label,
  from,
  to,
  disabled,
  onDone,
}: {
  label: string;
  from: string | null;
  to: string | null;
  disabled: boolean;
  onDone: (from: string | null, to: string | null) => void;
}) {
  return (
    <div className="choice-stack">
      <span>
        {label}{" "}
        {(from || to) && (
          <button type="button" className="link" disabled={disabled} onClick={() => onDone(null, null)}>
            at any time
          </button>
        )}
      </span>
      <DayField
        size="small"
        label={`${label} from`}
        placeholder="from"
        value={from ?? ""}
        disabled={disabled}
        onChange={(day) => onDone(day, to)}
      />
      <DayField
        size="small"
        label={`${label} until`}
        placeholder="until"
        value={to ?? ""}
        disabled={disabled}
        onChange={(day) => onDone(from, day)}
      />
    </div>
  );
}

/** A number, or none. It is carried out when the person leaves the field or presses Enter. */
export function NumberChoice({
  label,
  value,
  unit,
  min,
  max,
  precision,
  placeholder,
  disabled,
  onDone,
}: {
  label: string;
  value: number | null;
  unit?: string;
  min: number;
  max?: number;
  precision: number;
  placeholder?: string;
  disabled: boolean;
  onDone: (value: number | null) => void;
}) {
  const [typed, setTyped] = useState(value);
  const done = () => typed !== value && onDone(typed);
  return (
    <AmountField
      size="small"
      aria-label={label}
      min={min}
      max={max}
      precision={precision}
      controls={false}
      placeholder={placeholder}
      suffix={typed === null ? undefined : unit}
      value={typed}
      disabled={disabled}
      onChange={setTyped}
      onBlur={done}
      onPressEnter={done}
    />
  );
}
