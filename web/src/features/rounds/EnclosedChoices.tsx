import { useQuery } from "@tanstack/react-query";
import { Checkbox, Select } from "antd";
import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { copiesOf, enclosuresOf, type EnclosureUse } from "../enclosures/api";
import { GiveIn } from "../enclosures/GiveIn";
import { useGiveIn } from "../enclosures/useGiveIn";
import { Part } from "./ChoiceFields";
import { ColumnField } from "./ColumnField";
import type { Round, RoundSettings } from "./useRound";
import roundsStyles from "./rounds.module.css";

type Enclosing = Schemas["EnclosingRequest"];

const forms: { value: Enclosing["copies"]; label: string }[] = [
  { value: "none", label: "no copies" },
  { value: "single", label: "copies, each a file" },
  { value: "joined", label: "copies in one PDF" },
  { value: "zipped", label: "copies in a ZIP file" },
];

const picked: EnclosureUse = "picked";

/** What goes along beside the document: copies of the invoices, and files for all. */
export function EnclosedChoices({
  round,
  disabled,
  onDone,
}: {
  round: Round;
  disabled: boolean;
  onDone: (change: Partial<RoundSettings>) => void;
}) {
  const book = useBookId();
  const enclosing: Enclosing = round.settings.enclosing ?? {
    copies: "none",
    withoutMissing: false,
    split: false,
    withoutOwn: false,
    forAll: [],
    column: "",
  };
  const set = (change: Partial<Enclosing>) => onDone({ enclosing: { ...enclosing, ...change } });
  const giving = useGiveIn(picked);
  const files = useQuery({ queryKey: ["enclosures", book, picked], queryFn: () => enclosuresOf(book) });
  const withCopies = enclosing.copies !== "none";
  const copies = useQuery({
    queryKey: ["copies", book, round.id, "counts", round.preparedAt],
    queryFn: () => copiesOf(book, round.id, "question", "", 0),
    enabled: withCopies,
  });
  const countOf = (state: string) => copies.data?.counts.find((c) => c.state === state)?.count ?? 0;
  const open = [
    countOf("missing") > 0 && `${countOf("missing")} missing`,
    countOf("question") > 0 && `${countOf("question")} in question`,
  ].filter(Boolean);
  return (
    <Part title="Enclosed">
      <Select
        size="small"
        aria-label="Copies of invoices"
        popupMatchSelectWidth={false}
        value={enclosing.copies}
        disabled={disabled}
        options={forms}
        onChange={(form) => set({ copies: form })}
      />
      {withCopies && (
        <>
          <Link to={`/books/${book}/rounds/${round.id}/copies`}>
            {open.length > 0 ? `Copies: ${open.join(", ")}` : "Copies"}
          </Link>
          <Checkbox
            checked={enclosing.withoutMissing}
            disabled={disabled}
            onChange={(e) => set({ withoutMissing: e.target.checked })}
          >
            Go without missing copies
          </Checkbox>
        </>
      )}
      <div className={roundsStyles.choiceStack}>
        <span>Files for all</span>
        <Select<number[]>
          className="whole-width"
          mode="multiple"
          size="small"
          aria-label="Files for all"
          placeholder="none"
          popupMatchSelectWidth={false}
          showSearch={{ optionFilterProp: "label" }}
          value={files.data ? enclosing.forAll : []}
          disabled={disabled}
          options={(files.data ?? []).map((f) => ({ value: f.id, label: f.name }))}
          onChange={(forAll) => set({ forAll })}
        />
      </div>
      {!disabled && <GiveIn giving={giving} />}
      <Checkbox
        checked={!enclosing.withoutOwn}
        disabled={disabled}
        onChange={(e) => set({ withoutOwn: !e.target.checked })}
      >
        Files kept with the customer
      </Checkbox>
      <Checkbox checked={enclosing.split} disabled={disabled} onChange={(e) => set({ split: e.target.checked })}>
        Several messages where one would be too large
      </Checkbox>
      <ColumnField
        label="File named in column"
        value={enclosing.column}
        columns={round.columns}
        disabled={disabled}
        onDone={(column) => set({ column })}
      />
      <ColumnField
        label="Blind copy to the address in column"
        value={round.settings.colleagueColumn}
        columns={round.columns}
        disabled={disabled}
        onDone={(colleagueColumn) => onDone({ colleagueColumn })}
      />
    </Part>
  );
}
