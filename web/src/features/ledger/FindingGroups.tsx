import { useState, type ReactNode } from "react";
import { count } from "../../shared/figure";
import { titles, type Finding, type FindingGroup } from "./findings";
import styles from "./FindingGroups.module.css";

const marks: Record<Finding["severity"], { sign: string; words: string }> = {
  error: { sign: "✕", words: "error" },
  warning: { sign: "▲", words: "to look at" },
  note: { sign: "i", words: "for information" },
};

interface Ways {
  /** Leads to the cell of a finding. */
  onPoint?: (finding: Finding) => void;
  /** What can be done about one finding, beside it. */
  remedyOf?: (finding: Finding) => ReactNode;
  /** What can be done about all findings of a kind at once. */
  remedyOfAll?: (group: FindingGroup) => ReactNode;
}

/** Findings grouped by what they are, most serious first; each leads to its row where there is a sheet to show it. */
export function FindingGroups({ groups, ...ways }: { groups: FindingGroup[] } & Ways) {
  return groups.map((group) => <Group key={group.code} group={group} {...ways} />);
}

function Group({ group, onPoint, remedyOf, remedyOfAll }: { group: FindingGroup } & Ways) {
  const [all, setAll] = useState(false);
  const mark = marks[group.severity];
  const findings = group.first;
  const remedies = [...new Set(findings.map((f) => f.remedy))];
  return (
    <div className={styles.findingGroup}>
      <h3>
        <b aria-hidden className={styles[group.severity]}>
          {mark.sign}
        </b>
        <em className="visually-hidden">{mark.words}: </em>
        {titles[group.code] ?? group.code}
        <span>{group.count === 1 ? "once" : count(group.count, "time")}</span>
      </h3>
      <ul>
        {findings.slice(0, all ? undefined : 3).map((f, i) => (
          <li key={i}>
            {f.row > 0 &&
              (onPoint ? (
                <button type="button" className="link" onClick={() => onPoint(f)}>
                  {place(f)}
                </button>
              ) : (
                <span className="quiet">{place(f)}</span>
              ))}{" "}
            {f.message} {remedyOf?.(f)}
          </li>
        ))}
      </ul>
      {findings.length > 3 && (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all
            ? "Show fewer"
            : group.count > findings.length
              ? `Show the first ${findings.length}`
              : `Show all ${findings.length}`}
        </button>
      )}
      {remedies.length === 1 && remedies[0] && <div className="quiet">{remedies[0]}</div>}
      {remedyOfAll?.(group)}
    </div>
  );
}

function place(f: Finding): string {
  return `Row ${f.row}${f.column ? `, ${f.column}` : ""}`;
}
