import { useQuery } from "@tanstack/react-query";
import { Checkbox, InputNumber, Select } from "antd";
import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import { api, must } from "../../shared/api/client";
import { DayField } from "../../shared/DayField";
import { useBookId } from "../../shared/useBook";
import type { Round, RoundSettings } from "./useRound";

/** Who is written to about what. Each change is carried out at once, so that list and proof always show its effect. */
export function Choices({
  round,
  busy,
  onChange,
}: {
  round: Round;
  busy: boolean;
  onChange: (settings: RoundSettings) => void;
}) {
  const book = useBookId();
  const path = { book };
  const wordings = useQuery({
    queryKey: ["wordings", book],
    queryFn: () => must(api.GET("/api/books/{book}/wordings", { params: { path } })),
  });
  const senders = useQuery({
    queryKey: ["senders", book],
    queryFn: () => must(api.GET("/api/books/{book}/senders", { params: { path } })),
  });
  const s = round.settings;
  const fixed = round.releasedAt !== null || busy;
  const set = (change: Partial<RoundSettings>) => onChange({ ...s, ...change });
  const units = s.units ?? round.units;
  const sender = senders.data?.find((x) => x.id === s.senderId);
  return (
    <aside className="choices" aria-label="Choices" tabIndex={0}>
      <Part title="Who">
        <Line label="Overdue by at least">
          <Days
            value={s.overdueDays}
            label="Overdue by at least, days"
            disabled={fixed}
            onDone={(overdueDays) => set({ overdueDays })}
          />
        </Line>
        <Line label="Least balance">
          <Amount value={s.leastBalance} disabled={fixed} onDone={(leastBalance) => set({ leastBalance })} />
        </Line>
        <Line label="Not written to for">
          <Days
            value={s.notWithinDays}
            label="Not written to for, days"
            disabled={fixed}
            onDone={(notWithinDays) => set({ notWithinDays })}
          />
        </Line>
      </Part>
      <Part title="Which items">
        <div className="choice-stack">
          <span>As of</span>
          <DayField size="small" label="As of" value={s.asOf} disabled={fixed} onChange={(asOf) => set({ asOf })} />
        </div>
        <Checkbox checked={s.withCredits} disabled={fixed} onChange={(e) => set({ withCredits: e.target.checked })}>
          With credits
        </Checkbox>
        <Checkbox checked={!s.leaveOutHeld} disabled={fixed} onChange={(e) => set({ leaveOutHeld: !e.target.checked })}>
          With items in dispute
        </Checkbox>
      </Part>
      {round.units.length > 1 && (
        <Part title="Business unit">
          {round.units.map((unit) => (
            <Checkbox
              key={unit}
              checked={units.includes(unit)}
              disabled={fixed}
              onChange={(e) => {
                const chosen = round.units.filter((u) => (u === unit ? e.target.checked : units.includes(u)));
                set({ units: chosen.length === round.units.length ? null : chosen });
              }}
            >
              {unit || "none given"}
            </Checkbox>
          ))}
        </Part>
      )}
      <Part title="Words">
        <Select
          size="small"
          aria-label="Wording"
          loading={wordings.isPending}
          value={wordings.data ? s.wordingId : undefined}
          disabled={fixed}
          popupMatchSelectWidth={false}
          options={(wordings.data ?? []).map((w) => ({ value: w.id, label: w.name }))}
          onChange={(wordingId) => set({ wordingId })}
        />
      </Part>
      <Part title="Goes by">
        <span>
          {sender?.address.split("@")[0]}
          <wbr />@{sender?.address.split("@")[1]}
        </span>
        {sender?.isPractice && <span className="quiet">practice: it ends in the postroom</span>}
        <Link to={`/books/${book}/words?part=sender`}>change</Link>
      </Part>
    </aside>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function Line({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="choice-line">
      <span>{label}</span>
      {children}
    </div>
  );
}

/** A number of days, or none. It is carried out when the person leaves the field or presses Enter. */
function Days({
  value,
  label,
  disabled,
  onDone,
}: {
  value: number | null;
  label: string;
  disabled: boolean;
  onDone: (days: number | null) => void;
}) {
  const [typed, setTyped] = useState(value);
  const done = () => typed !== value && onDone(typed);
  return (
    <InputNumber
      size="small"
      aria-label={label}
      min={1}
      max={3650}
      precision={0}
      controls={false}
      placeholder="any"
      suffix={typed === null ? undefined : "d"}
      value={typed}
      disabled={disabled}
      onChange={setTyped}
      onBlur={done}
      onPressEnter={done}
    />
  );
}

function Amount({ value, disabled, onDone }: { value: number; disabled: boolean; onDone: (amount: number) => void }) {
  const [typed, setTyped] = useState<number | null>(value);
  const done = () => (typed ?? 0) !== value && onDone(typed ?? 0);
  return (
    <InputNumber
      size="small"
      aria-label="Least balance"
      min={0}
      precision={2}
      controls={false}
      value={typed}
      disabled={disabled}
      onChange={setTyped}
      onBlur={done}
      onPressEnter={done}
    />
  );
}
