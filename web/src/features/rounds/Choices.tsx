import { Checkbox, Select } from "antd";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { DayField } from "../../shared/DayField";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useSenders } from "../senders/useSenders";
import { useLayouts } from "../layouts/useLayouts";
import { Line, NumberChoice, Part, Span } from "./ChoiceFields";
import { Columns } from "./ColumnChoices";
import { EnclosedChoices } from "./EnclosedChoices";
import { SavedChoices } from "./SavedChoices";
import type { Round, RoundChange, RoundSettings } from "./useRound";
import { formWords, kinds, groupsWords, periodWords } from "./words";
import { WordingChoices } from "./WordingChoices";
import roundsStyles from "./rounds.module.css";
import styles from "./Choices.module.css";

/** Stands for what the card or the book says. */
const asSet = "as-set";

/** Who is written to about what. Each change is carried out at once, so that list and proof always show its effect. */
export function Choices({
  round,
  busy,
  onChange,
}: {
  round: Round;
  busy: boolean;
  onChange: (change: RoundChange) => void;
}) {
  const book = useBookId();
  const senders = useSenders();
  const layouts = useLayouts();
  const s = round.settings;
  const fixed = round.releasedAt !== null || busy;
  // A second change that comes before the first is carried out must not lose it.
  const latest = useRef<RoundChange>(undefined);
  // What is typed was meant for the round as it was when the typing began, whatever others change until it is done.
  const begun = useRef<Round>(undefined);
  useEffect(() => {
    if (!busy) {
      latest.current = undefined;
      begun.current = undefined;
    }
  }, [busy]);
  const set = (change: Partial<RoundSettings>) => {
    const seen = latest.current?.seen ?? begun.current ?? round;
    latest.current = { seen, change: { ...latest.current?.change, ...change } };
    onChange(latest.current);
  };
  const units = s.units ?? round.units;
  const sender = senders.data?.find((x) => x.id === s.senderId);
  return (
    <aside
      className={styles.choices}
      aria-label="Choices"
      tabIndex={0}
      onFocusCapture={() => (begun.current = round)}
      onKeyDownCapture={() => (begun.current ??= round)}
    >
      <section>
        <SavedChoices round={round} disabled={fixed} />
      </section>
      <Part title="What goes">
        <Select
          size="small"
          aria-label="What goes"
          popupMatchSelectWidth={false}
          value={s.reminderLevels === null ? s.about : "reminders"}
          disabled={fixed}
          options={kinds}
          onChange={(what) =>
            set(
              what === "reminders"
                ? { reminderLevels: round.reminderLevels.map((_, i) => i + 1), about: "statements", leaveOutHeld: true }
                : {
                    reminderLevels: null,
                    about: what,
                    // A list of invoices lists what was charged; with a balance to confirm, nothing may be missing.
                    withCredits: what !== "invoices",
                    leaveOutHeld: what === "confirmations" ? false : s.leaveOutHeld,
                  },
            )
          }
        />
        {s.reminderLevels !== null &&
          round.reminderLevels.map((level, i) => (
            <Checkbox
              key={i}
              checked={s.reminderLevels?.includes(i + 1)}
              disabled={fixed || (s.reminderLevels?.length === 1 && s.reminderLevels[0] === i + 1)}
              onChange={(e) =>
                set({
                  reminderLevels: round.reminderLevels
                    .map((_, at) => at + 1)
                    .filter((at) => (at === i + 1 ? e.target.checked : s.reminderLevels?.includes(at))),
                })
              }
            >
              level {i + 1}, from {count(level.days, "day")}
            </Checkbox>
          ))}
      </Part>
      <Part title="Who">
        <Line label="Overdue by at least">
          <NumberChoice
            unit="d"
            min={1}
            max={3650}
            precision={0}
            placeholder="any"
            value={s.overdueDays}
            label="Overdue by at least, days"
            disabled={fixed}
            onDone={(overdueDays) => set({ overdueDays })}
          />
        </Line>
        <Line label="Minimum balance">
          <NumberChoice
            label="Minimum balance"
            value={s.leastBalance}
            min={0}
            precision={2}
            disabled={fixed}
            onDone={(least) => set({ leastBalance: least ?? 0 })}
          />
        </Line>
        <Line label="Not written to for">
          <NumberChoice
            unit="d"
            min={1}
            max={3650}
            precision={0}
            placeholder="any"
            value={s.notWithinDays}
            label="Not written to for, days"
            disabled={fixed}
            onDone={(notWithinDays) => set({ notWithinDays })}
          />
        </Line>
      </Part>
      <Part title="Statement">
        <Select
          size="small"
          aria-label="What the statement lists"
          popupMatchSelectWidth={false}
          value={s.form ?? asSet}
          disabled={fixed}
          options={[
            { value: asSet, label: `as set: ${formWords[round.bookForm]}` },
            { value: "open-items", label: formWords["open-items"] },
            { value: "brought-forward", label: formWords["brought-forward"] },
          ]}
          onChange={(picked) => {
            const form = picked === asSet ? null : (picked as RoundSettings["form"]);
            const last = round.periods[0];
            set(form === "brought-forward" && last ? { form, periodFrom: last.from, asOf: last.to } : { form });
          }}
        />
        {(s.form ?? round.bookForm) === "brought-forward" && (
          <div className={roundsStyles.choiceStack}>
            <Select
              className="whole-width"
              size="small"
              aria-label="Period"
              popupMatchSelectWidth={false}
              disabled={fixed}
              value={round.periods.find((p) => p.from === s.periodFrom && p.to === s.asOf)?.name ?? "own"}
              options={[
                ...round.periods.map((p) => ({ value: p.name, label: periodWords[p.name] })),
                { value: "own", label: "own days", disabled: true },
              ]}
              onChange={(name) => {
                const period = round.periods.find((p) => p.name === name);
                if (period) {
                  set({ periodFrom: period.from, asOf: period.to });
                }
              }}
            />
            <DayField
              size="small"
              label="Period from"
              placeholder="from"
              value={s.periodFrom ?? ""}
              disabled={fixed}
              onChange={(periodFrom) => set({ periodFrom })}
            />
          </div>
        )}
      </Part>
      <Part title="Interest">
        <Line label="A year, if overdue">
          <NumberChoice
            label="Interest a year, per cent"
            value={s.interestPercent}
            unit="%"
            min={0.01}
            max={100}
            precision={2}
            placeholder="none"
            disabled={fixed}
            onDone={(interestPercent) => set({ interestPercent })}
          />
        </Line>
      </Part>
      <Part title="Which items">
        <div className={roundsStyles.choiceStack}>
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
      <Part title="Between">
        <Span
          label="Dated"
          from={s.datedFrom}
          to={s.datedTo}
          disabled={fixed}
          onDone={(datedFrom, datedTo) => set({ datedFrom, datedTo })}
        />
        <Span
          label="Due"
          from={s.dueFrom}
          to={s.dueTo}
          disabled={fixed}
          onDone={(dueFrom, dueTo) => set({ dueFrom, dueTo })}
        />
      </Part>
      {round.headOffices.length > 0 && (
        <Part title="Head office">
          <Select
            mode="multiple"
            size="small"
            aria-label="Head offices"
            placeholder="everybody"
            allowClear
            showSearch={{ optionFilterProp: "label" }}
            popupMatchSelectWidth={false}
            value={s.headOffices ?? []}
            disabled={fixed}
            options={round.headOffices.map((o) => ({ value: o.customer, label: o.name }))}
            onChange={(offices: string[]) => set({ headOffices: offices.length > 0 ? offices : null })}
          />
          <div className={roundsStyles.choiceStack}>
            <span>Statements of branches go to</span>
            <Select
              className="whole-width"
              size="small"
              aria-label="Statements of branches go to"
              popupMatchSelectWidth={false}
              value={s.groups ?? asSet}
              disabled={fixed}
              options={[
                { value: asSet, label: "as its card says" },
                ...Object.entries(groupsWords).map(([value, label]) => ({ value, label })),
              ]}
              onChange={(picked) => set({ groups: picked === asSet ? null : (picked as RoundSettings["groups"]) })}
            />
          </div>
        </Part>
      )}
      {round.columns.length > 0 && <Columns round={round} disabled={fixed} onDone={(columns) => set({ columns })} />}
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
      <WordingChoices round={round} disabled={fixed} onDone={set} />
      <Part title="Paper">
        <Select
          size="small"
          aria-label="Layout"
          loading={layouts.isPending}
          value={layouts.data ? (s.layoutId ?? 0) : undefined}
          disabled={fixed}
          popupMatchSelectWidth={false}
          options={[
            { value: 0, label: "as set for the book" },
            ...(layouts.data?.layouts ?? []).map((l) => ({ value: l.id, label: l.name })),
          ]}
          onChange={(id: number) => set({ layoutId: id === 0 ? null : id })}
        />
      </Part>
      <EnclosedChoices round={round} disabled={fixed} onDone={set} />
      <Part title="Goes by">
        {senders.data && (senders.data.length > 1 || !sender) ? (
          <Select
            size="small"
            aria-label="Sender"
            popupMatchSelectWidth={false}
            value={s.senderId}
            disabled={fixed}
            options={[
              ...senders.data.map((x) => ({ value: x.id, label: x.isPractice ? `practice: ${x.address}` : x.address })),
              ...(sender ? [] : [{ value: s.senderId, label: "somebody’s own sender" }]),
            ]}
            onChange={(senderId) => set({ senderId })}
          />
        ) : (
          <span>
            {sender?.address.split("@")[0]}
            <wbr />@{sender?.address.split("@")[1]}
          </span>
        )}
        {sender?.isPractice && <span className="quiet">practice: it ends in the postroom</span>}
        <Link to={`/books/${book}/words?part=sender`}>change</Link>
      </Part>
    </aside>
  );
}
