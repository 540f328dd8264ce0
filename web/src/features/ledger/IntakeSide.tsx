import { Alert, Button, Flex, Form, Input, Select } from "antd";
import type { ReactNode } from "react";
import type { Schemas } from "../../shared/api/client";
import { figure, money } from "../../shared/figure";
import { CardLink } from "./CardLink";
import { FindingGroups } from "./FindingGroups";
import type { Finding, FindingGroup } from "./findings";
import { kinds, type Meaning } from "./meanings";
import styles from "./IntakeSide.module.css";

type Intake = Schemas["IntakeView"];
type Reading = Schemas["ReadingRequest"];

/** What would be kept, the totals it was compared with, and what was noticed. */
export function IntakeSide({
  view,
  onPoint,
  onJoin,
  onChange,
  onTake,
  onCustomers,
}: {
  view: Intake;
  onPoint: (finding: Finding) => void;
  onJoin?: ((pair: [string, string]) => void) | undefined;
  onChange?: ((change: (now: Reading) => Reading) => void) | undefined;
  onTake?: ((column: number, meaning: Meaning) => void) | undefined;
  /** Takes the file in as a customer list instead. */
  onCustomers?: (() => void) | undefined;
}) {
  const other = view.seemsToBe?.says;
  // What stands above in words of its own is not listed again.
  const findings = view.findings.filter((group) => group.code !== "seems-no-ledger");
  const remedyOf = (f: Finding): ReactNode => {
    const { customer, other } = f;
    return onJoin && customer && other ? (
      <button type="button" className="link" onClick={() => onJoin([customer, other])}>
        Merge
      </button>
    ) : (
      <CardLink finding={f} />
    );
  };
  const remedyOfAll = (group: FindingGroup): ReactNode =>
    onChange && group.code === "kind-unknown" ? (
      <KindWords group={group} onChange={onChange} />
    ) : onChange && group.code === "sign-unclear" ? (
      <Signs view={view} group={group} onChange={onChange} />
    ) : onChange && group.code === "rows-hidden" ? (
      <LeaveOut
        what="hidden rows"
        areRead={!view.leavesOutHidden}
        onSet={(leavesOutHidden) => onChange((now) => ({ ...now, leavesOutHidden }))}
      />
    ) : onChange && group.code === "columns-hidden" ? (
      <LeaveOut
        what="hidden columns"
        areRead={!view.leavesOutHiddenColumns}
        onSet={(leavesOutHiddenColumns) => onChange((now) => ({ ...now, leavesOutHiddenColumns }))}
      />
    ) : null;
  return (
    <aside className={styles.intakeSide} aria-label="What was found" tabIndex={0}>
      {view.question && <WhichAmount question={view.question} onTake={onTake} />}
      {view.seemsToBe && (
        <Alert
          className="below-8"
          type="warning"
          title={view.seemsToBe.says}
          description={
            view.seemsToBe.kind === "customer-list" &&
            onCustomers && <Button onClick={onCustomers}>Take in as customer list</Button>
          }
        />
      )}
      {view.lacks
        .filter((lack) => lack !== view.question?.says && lack !== other)
        .map((lack) => (
          <Alert className="below-8" key={lack} type="error" title={lack} />
        ))}
      {view.doubts
        .filter((doubt) => doubt !== other)
        .map((doubt) => (
          <Alert className="below-8" key={doubt} type="warning" title={doubt} />
        ))}
      {view.lacks.length === 0 && <Sums view={view} />}
      {view.lacks.length === 0 && view.kind === "ledger" && <Totals view={view} onChange={onChange} />}
      {findings.length > 0 && <h2 className="only-below-8">What was noticed</h2>}
      <FindingGroups groups={findings} onPoint={onPoint} remedyOf={remedyOf} remedyOfAll={remedyOfAll} />
    </aside>
  );
}

/** Two columns could be the amount: each with the sum that it would give, taken by a click. */
function WhichAmount({
  question,
  onTake,
}: {
  question: Schemas["AmountQuestionView"];
  onTake?: ((column: number, meaning: Meaning) => void) | undefined;
}) {
  return (
    <Alert
      className="below-8"
      type="warning"
      title={`Which column is ${question.meaning === "outstanding" ? "the outstanding amount" : "the amount"}?`}
      description={
        <Flex vertical gap={6}>
          {question.choices.map((choice) => (
            <Button key={choice.column} disabled={!onTake} onClick={() => onTake?.(choice.column, question.meaning)}>
              {choice.heading}: {figure(choice.sum)} in {question.rows} rows
            </Button>
          ))}
        </Flex>
      }
    />
  );
}

function Sums({ view }: { view: Intake }) {
  const lines: [string, number][] = [
    ["Rows read", view.rowsRead],
    [view.kind === "ledger" ? "Rows to be kept" : "Customers", view.rowsKept],
    [view.kind === "ledger" ? "Rows set aside" : "Rows passed over", view.rowsSetAside],
  ];
  if (view.rowsLeftOut > 0) {
    lines.push(["Rows left out by hand", view.rowsLeftOut]);
  }
  if (view.totalLines > 0) {
    lines.push(["Total lines, kept out", view.totalLines]);
  }
  if (view.kind === "customers") {
    lines.push(["New customers", view.newCustomers]);
  }
  return (
    <>
      <h2>What would be kept</h2>
      <table className="sums">
        <tbody>
          {lines.map(([words, n]) => (
            <tr key={words}>
              <td>{words}</td>
              <td className="figure">{n.toLocaleString("en-GB")}</td>
            </tr>
          ))}
          {view.ledgerSums.map((s) => {
            const kept = view.sums.find((k) => k.currency === s.currency)?.amount;
            const aside = view.setAsideSums.find((k) => k.currency === s.currency)?.amount;
            const left = view.leftOutSums.find((k) => k.currency === s.currency)?.amount;
            return [
              <tr key={s.currency}>
                <td>Sum of all, {s.currency}</td>
                <td className="figure">
                  <strong>{money(s.amount, s.currency)}</strong>
                </td>
              </tr>,
              aside && (
                <tr key={`${s.currency} split`}>
                  <td className="quiet">kept + set aside</td>
                  <td className="figure quiet">
                    {kept ? money(kept, s.currency) : "–"} + {money(aside, s.currency)}
                  </td>
                </tr>
              ),
              left && (
                <tr key={`${s.currency} left`}>
                  <td className="quiet">left out by hand</td>
                  <td className="figure quiet">{money(left, s.currency)}</td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </table>
    </>
  );
}

function Totals({
  view,
  onChange,
}: {
  view: Intake;
  onChange?: ((change: (now: Reading) => Reading) => void) | undefined;
}) {
  const [form] = Form.useForm<{ total: string; currency: string }>();
  const disagree = view.checks.filter((c) => !c.agrees);
  const agree = view.checks.length - disagree.length;
  const set = ({ total, currency }: { total: string; currency: string }) => {
    const amount = Number(total.replace(/[,\s']/g, ""));
    onChange?.((now) => ({ ...now, totals: { ...now.totals, [currency]: amount } }));
    form.resetFields();
  };
  return (
    <div className={styles.totals}>
      {view.checks.length > 0 && (
        <p className="only-below-6">
          {agree > 0 && `${agree === 1 ? "One total agrees" : `${agree} totals agree`} with the rows. `}
          {disagree.length > 0 && (
            <strong>{disagree.length === 1 ? "One total disagrees." : `${disagree.length} totals disagree.`}</strong>
          )}
        </p>
      )}
      {Object.entries(view.totals).map(([currency, total]) => (
        <div key={currency} className="quiet">
          You typed in {figure(total)} {currency}.{" "}
          {onChange && (
            <button
              type="button"
              className="link"
              onClick={() =>
                onChange((now) => ({
                  ...now,
                  totals: Object.fromEntries(Object.entries(now.totals ?? {}).filter(([c]) => c !== currency)),
                }))
              }
            >
              Remove
            </button>
          )}
        </div>
      ))}
      {onChange && (
        <Form
          form={form}
          layout="inline"
          requiredMark={false}
          initialValues={{ currency: view.ledgerSums[0]?.currency }}
          onFinish={set}
        >
          <Form.Item
            name="total"
            rules={[{ required: true, pattern: /^-?[\d,\s']*\.?\d+$/, message: "Write it like 1,234.50." }]}
          >
            <Input className={styles.total} size="small" aria-label="A total you know" placeholder="A total you know" />
          </Form.Item>
          <Form.Item name="currency">
            <Select
              className="width-76"
              size="small"
              aria-label="Currency of the total"
              options={view.ledgerSums.map((s) => ({ value: s.currency, label: s.currency }))}
            />
          </Form.Item>
          <Button size="small" htmlType="submit">
            Compare
          </Button>
        </Form>
      )}
    </div>
  );
}

function KindWords({
  group,
  onChange,
}: {
  group: FindingGroup;
  onChange: (change: (now: Reading) => Reading) => void;
}) {
  const words = [...new Set(group.first.flatMap((f) => /^“(.+)” is not/.exec(f.message)?.[1] ?? []))].slice(0, 8);
  return (
    <ul>
      {words.map((word) => (
        <li key={word}>
          “{word}” is{" "}
          <Select
            className="at-least-150"
            size="small"
            aria-label={`What “${word}” is`}
            placeholder="say what"
            popupMatchSelectWidth={false}
            options={kinds}
            onChange={(kind: Schemas["ItemKind"]) =>
              onChange((now) => ({ ...now, kinds: { ...now.kinds, [word]: kind } }))
            }
          />
        </li>
      ))}
    </ul>
  );
}

function LeaveOut({ what, areRead, onSet }: { what: string; areRead: boolean; onSet: (leavesOut: boolean) => void }) {
  return (
    <Button className="above-4" size="small" onClick={() => onSet(areRead)}>
      {areRead ? "Leave out" : "Include"} {what}
    </Button>
  );
}

function Signs({
  view,
  group,
  onChange,
}: {
  view: Intake;
  group: FindingGroup;
  onChange: (change: (now: Reading) => Reading) => void;
}) {
  const columns = view.columns.filter((c) => group.first.some((f) => f.column === c.heading));
  const set = (unsigned: boolean) =>
    onChange((now) => ({
      ...now,
      unsignedCredits: { ...now.unsignedCredits, ...Object.fromEntries(columns.map((c) => [c.index, unsigned])) },
    }));
  return (
    <Flex gap={6} wrap className="above-4">
      <Button size="small" onClick={() => set(true)}>
        All credits lower what is owed
      </Button>
      <Button size="small" onClick={() => set(false)}>
        Only those with a minus do
      </Button>
    </Flex>
  );
}
