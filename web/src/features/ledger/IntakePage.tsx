import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Checkbox, Segmented } from "antd";
import { useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../shared/api/client";
import type { KeptIntake } from "../../shared/api/work";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useGoOn } from "../../shared/useGoOn";
import { useKeys } from "../../shared/useKeys";
import { WorkBar } from "../../shared/WorkBar";
import { Changes } from "./Changes";
import type { ColumnChange } from "./ColumnHead";
import { FileSheet, type Place } from "./FileSheet";
import { stepFrom, type Finding } from "./findings";
import { foldable } from "./folding";
import { IntakeSide } from "./IntakeSide";
import { JoinCustomers } from "./JoinCustomers";
import type { Column, Meaning } from "./meanings";
import { OpeningLine } from "./OpeningLine";
import { PutRight, type WrongCell } from "./PutRight";
import { useIntake } from "./useIntake";
import { useLedger } from "./useLedger";
import { useWork } from "./useWork";
import { served } from "../../shared/served";
import styles from "./IntakePage.module.css";
import { lookAgain } from "./api";

type Intake = Schemas["IntakeView"];

/** A file as it stands, with what each column was taken for and why; nothing is kept before the person says so. */
export function IntakePage() {
  const id = Number(useParams().intake);
  const navigate = useNavigate();
  const book = useBookId();
  const intake = useIntake(id);
  if (intake.view.error) {
    return (
      <div className="page">
        <Alert
          type="error"
          title={intake.view.error.name === "AbortError" ? "Stopped. Nothing was kept." : intake.view.error.message}
          action={<Button onClick={() => void navigate(`/books/${book}/ledger`)}>Back</Button>}
        />
      </div>
    );
  }
  if (!intake.view.data) {
    return (
      <div className="page">
        <WorkBar progress={intake.looking.progress} onStop={intake.looking.stop} />
      </div>
    );
  }
  return <Look key={id} view={intake.view.data} intake={intake} />;
}

function Look({ view, intake }: { view: Intake; intake: ReturnType<typeof useIntake> }) {
  const book = useBookId();
  const navigate = useNavigate();
  const client = useQueryClient();
  const goOn = useGoOn();
  const { message, modal } = App.useApp();
  const [parameters] = useSearchParams();
  const ledger = useLedger();
  const keepingWork = useWork();
  const [at, setAt] = useState<Place>(() => ({
    row: Number(parameters.get("row") ?? view.headingRow ?? 1),
    column: view.columns.find((c) => !foldable(view).includes(c.index))?.index ?? 0,
  }));
  const [side, setSide] = useState<"file" | "changes">("file");
  const [wrong, setWrong] = useState<{ cell: WrongCell; what: "value" | "row" } | null>(null);
  const [pair, setPair] = useState<[string, string] | null>(null);
  const [pointed, setPointed] = useState<Finding | null>(null);
  const [emptyClears, setEmptyClears] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const isOpen = view.state === "looked-at";
  const isLedger = view.kind === "ledger";
  const hasLedger = ledger.data?.ledger != null && ledger.data.ledger.intakeId !== view.id;
  const home = `/books/${book}/${isLedger ? "ledger" : "customers"}`;
  const back = () => void navigate(home);

  const keeping = useMutation({
    mutationFn: (sure: boolean) =>
      keepingWork.start<KeptIntake>(
        "POST",
        served(`/api/books/${book}/intakes/${view.id}/keep?sure=${sure}&emptyClears=${emptyClears}`),
      ),
    onSuccess: async (kept) => {
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "intake" });
      message.success(
        isLedger
          ? `${count(kept.rows, "row")} kept. They are the ledger now.`
          : `${count(kept.rows, "customer")} taken in.`,
      );
      await goOn(home);
      // Last, for without it this page would be gone before it could lead on.
      client.removeQueries({ queryKey: ["intake", book, view.id] });
    },
    onError: (e) =>
      e.name === "AbortError" ? message.info("Stopped. Nothing was kept.") : message.error(e.message, 8),
  });
  const keep = () => {
    if (!isOpen || view.lacks.length > 0 || keeping.isPending) {
      return;
    }
    if (view.doubts.length === 0) {
      keeping.mutate(false);
      return;
    }
    modal.confirm({
      title: "Keep this file as the ledger?",
      content: view.doubts.map((doubt) => <p key={doubt}>{doubt}</p>),
      okText: "Keep file",
      cancelText: "Cancel",
      onOk: () => keeping.mutate(true),
    });
  };

  const findings = view.findings.flatMap((g) => g.first).filter((f) => f.row > 0 && f.severity !== "note");
  const point = (finding: Finding) => {
    const column = view.columns.find((c) => c.heading === finding.column)?.index ?? at.column;
    setSide("file");
    setAt({ row: finding.row, column });
    setPointed(finding);
    sheet.current?.focus();
  };
  const step = (by: 1 | -1) => {
    const here = findings.find(
      (f) => f.row === at.row && (f.column === null || f.column === view.columns[at.column]?.heading),
    );
    const next = stepFrom(findings, here ?? (pointed?.row === at.row ? pointed : null), by);
    if (next) {
      point(next);
    }
  };
  const open = (what: "value" | "row") => {
    const column = view.columns[at.column];
    if (isOpen && isLedger && column && at.row > (view.headingRow ?? Infinity)) {
      setWrong({ what, cell: { row: at.row, column: column.index, heading: column.heading } });
    }
  };
  const corrected = async () => {
    setWrong(null);
    setPair(null);
    await client.invalidateQueries({ queryKey: ["corrections", book] });
    await intake.refresh();
    sheet.current?.focus();
  };
  useKeys({
    k: keep,
    n: () => step(1),
    p: () => step(-1),
    l: () => open("row"),
    Enter: () => open("value"),
    "1": () => setSide("file"),
    "2": () => isOpen && isLedger && hasLedger && setSide("changes"),
  });

  const set = (column: Column, change: ColumnChange) =>
    intake.change((now) => ({
      ...now,
      headingRow: view.headingRow,
      remembered: (now.remembered ?? []).filter((index) => index !== column.index),
      ...(change.meaning && { meanings: { ...now.meanings, [column.index]: change.meaning } }),
      ...(change.field && { fields: { ...now.fields, [column.index]: change.field } }),
      ...(change.mark && { marks: { ...now.marks, [column.index]: change.mark } }),
      ...(change.order && { orders: { ...now.orders, [column.index]: change.order } }),
    }));
  // The other column of the question is not what this one is.
  const take = (column: number, meaning: Meaning) =>
    intake.change((now) => ({
      ...now,
      headingRow: view.headingRow,
      meanings: {
        ...now.meanings,
        ...Object.fromEntries((view.question?.choices ?? []).map((c) => [c.column, "extra"])),
        [column]: meaning,
      },
    }));
  const again = useMutation({
    mutationFn: (kind?: Intake["kind"]) => lookAgain(book, view.id, kind),
    onSuccess: (begun) => void goOn(`/books/${book}/ledger/${begun.id}?row=${at.row}`),
    onError: (e) => message.error(e.message),
  });
  return (
    <div className={styles.intake}>
      <div className={styles.intakeHead}>
        <h1>{view.file}</h1>
        <span className="quiet">
          {view.lacks.length > 0
            ? "cannot be read yet"
            : `${count(view.rowsRead, "row")} · ${count(view.customers, "customer")}`}
        </span>
        {isOpen && isLedger && hasLedger && view.lacks.length === 0 && (
          <Segmented<"file" | "changes">
            size="small"
            aria-label="What to look at"
            value={side}
            options={[
              { value: "file", label: "The file 1" },
              { value: "changes", label: "What changes 2" },
            ]}
            onChange={setSide}
          />
        )}
        <span className="push" />
        {isOpen && !isLedger && (
          <Checkbox checked={emptyClears} onChange={(e) => setEmptyClears(e.target.checked)}>
            Empty fields clear filled ones
          </Checkbox>
        )}
        {isOpen && isLedger && findings.length > 0 && (
          <span className="quiet">
            <kbd>N</kbd> next finding · <kbd>Enter</kbd> correct · <kbd>L</kbd> leave out
          </span>
        )}
        <Button onClick={back}>{isOpen ? "Cancel" : "Back"}</Button>
        {isOpen ? (
          <Button type="primary" disabled={view.lacks.length > 0} loading={keeping.isPending} onClick={keep}>
            Keep {isLedger ? count(view.rowsKept, "row") : count(view.rowsKept, "customer")} <kbd aria-hidden>K</kbd>
          </Button>
        ) : (
          isLedger && (
            <Button loading={again.isPending} onClick={() => again.mutate(undefined)}>
              Add corrections
            </Button>
          )
        )}
      </div>
      <OpeningLine
        view={view}
        onChange={isOpen ? intake.change : undefined}
        onLoad={intake.load}
        savedAt={served(`/api/books/${book}/intakes/${view.id}/reading.json`)}
      />
      {keepingWork.isWorking ? (
        <WorkBar progress={keepingWork.progress} onStop={keepingWork.stop} />
      ) : side === "changes" ? (
        <Changes intake={view.id} stamp={intake.stamp} />
      ) : (
        <FileSheet
          ref={sheet}
          view={view}
          stamp={intake.stamp}
          at={at}
          onMove={setAt}
          onOpen={isOpen && isLedger ? () => open("value") : undefined}
          onSet={isOpen ? set : undefined}
        />
      )}
      <IntakeSide
        view={view}
        onPoint={point}
        onJoin={isOpen ? setPair : undefined}
        onChange={isOpen ? intake.change : undefined}
        onTake={isOpen ? take : undefined}
        onCustomers={isOpen ? () => again.mutate("customers") : undefined}
      />
      {wrong && (
        <PutRight
          intake={view.id}
          cell={wrong.cell}
          what={wrong.what}
          onClose={() => setWrong(null)}
          onDone={() => void corrected()}
        />
      )}
      {pair && <JoinCustomers pair={pair} onClose={() => setPair(null)} onDone={() => void corrected()} />}
    </div>
  );
}
