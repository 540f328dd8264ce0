import { useState, type ReactNode } from "react";
import { DayField } from "../../shared/DayField";
import { AmountField } from "../../shared/AmountField";
import roundsStyles from "./rounds.module.css";
import styles from "./ChoiceFields.module.css";

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
    <div className={styles.choiceLine}>
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
    <div className={roundsStyles.choiceStack}>
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

/**
 * A number, or none. It is carried out when the person leaves the field or presses Enter. What is being typed stays while
 * others change the round; once it was carried out or refused, the field shows what holds.
 */
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
  const [known, setKnown] = useState({ value, disabled });
  if (known.value !== value || known.disabled !== disabled) {
    setKnown({ value, disabled });
    if (!disabled && (known.disabled || typed === known.value)) {
      setTyped(value);
    }
  }
  // Enter disables the field until the change is made, and that takes the focus away: it is not made twice.
  const done = () => !disabled && typed !== value && onDone(typed);
  return (
    <AmountField
      className="width-66"
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
