import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";

type Finding = Schemas["FindingView"];

const titles: Record<string, string> = {
  "no-customer": "No customer",
  "amount-missing": "No amount",
  "amount-unreadable": "Not an amount",
  "amount-finer-than-unit": "Finer than a penny",
  "sign-unclear": "Sign unclear",
  "debit-and-credit": "Debit and credit both filled",
  "decimal-mark-assumed": "Decimal mark assumed",
  "date-unreadable": "Not a date",
  "date-missing": "No date",
  "date-order-assumed": "Day or month first?",
  "due-date-derived": "Due date worked out",
  "currency-unknown": "Not a currency",
  "kind-unknown": "Kind not known",
  "same-row-twice": "The same row twice",
  "code-with-two-names": "One code, two names",
  "address-of-two-customers": "One address, two customers",
  "missing-address": "No address",
  "bad-address": "Address looks wrong",
  "control-total-differs": "Total line disagrees",
};

const marks: Record<Finding["severity"], { sign: string; words: string; colour: string }> = {
  error: { sign: "✕", words: "error", colour: "var(--rust)" },
  warning: { sign: "▲", words: "to look at", colour: "var(--brass-ink)" },
  note: { sign: "i", words: "for information", colour: "var(--ink-2)" },
};

/** Findings grouped by what they are, most serious first; each leads to its row where there is a sheet to show it. */
export function FindingGroups({ findings, onPoint }: { findings: Finding[]; onPoint?: (finding: Finding) => void }) {
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    groups.set(finding.code, [...(groups.get(finding.code) ?? []), finding]);
  }
  return [...groups].map(([code, of]) => <Group key={code} code={code} findings={of} onPoint={onPoint} />);
}

function Group({ code, findings, onPoint }: { code: string; findings: Finding[]; onPoint?: (f: Finding) => void }) {
  const [all, setAll] = useState(false);
  const mark = marks[findings[0]?.severity ?? "note"];
  const remedies = [...new Set(findings.map((f) => f.remedy))];
  return (
    <div className="finding-group">
      <h3>
        <b aria-hidden style={{ color: mark.colour }}>
          {mark.sign}
        </b>
        <em className="visually-hidden">{mark.words}: </em>
        {titles[code] ?? code}
        <span>{findings.length === 1 ? "once" : count(findings.length, "time")}</span>
      </h3>
      <ul>
        {findings.slice(0, all ? undefined : 3).map((f, i) => (
          <li key={i}>
            {f.row > 0 &&
              (onPoint ? (
                <button type="button" className="link" onClick={() => onPoint(f)}>
                  Row {f.row}
                  {f.column ? `, ${f.column}` : ""}
                </button>
              ) : (
                <span className="quiet">
                  Row {f.row}
                  {f.column ? `, ${f.column}` : ""}
                </span>
              ))}{" "}
            {f.message}
          </li>
        ))}
      </ul>
      {findings.length > 3 && (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all ? "Show fewer" : `Show all ${findings.length}`}
        </button>
      )}
      {remedies.length === 1 && remedies[0] && <div className="quiet">{remedies[0]}</div>}
    </div>
  );
}
