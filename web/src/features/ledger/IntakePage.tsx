import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Select } from "antd";
import { useEffect, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { api, must, type Schemas } from "../../shared/api/client";
import { count, money } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import { Waiting } from "../../shared/Waiting";
import { FindingGroups } from "./FindingGroups";
import "./ledger.css";

type Intake = Schemas["IntakeView"];
type Column = Schemas["ColumnView"];
type Meaning = Column["meaning"];

const meanings: { value: Meaning; label: string }[] = [
  { value: "customer-code", label: "Customer code" },
  { value: "customer-name", label: "Customer name" },
  { value: "kind", label: "Kind" },
  { value: "number", label: "Number" },
  { value: "date", label: "Document date" },
  { value: "due-date", label: "Due date" },
  { value: "currency", label: "Currency" },
  { value: "amount", label: "Amount" },
  { value: "outstanding", label: "Outstanding" },
  { value: "debit", label: "Debit" },
  { value: "credit", label: "Credit" },
  { value: "email", label: "E-mail" },
  { value: "reference", label: "Settles number" },
  { value: "unit", label: "Business unit" },
  { value: "held", label: "Dispute, held" },
  { value: "extra", label: "Kept for slots" },
];

/** A file as it stands, with what each column was taken for and why; nothing is kept before the person says so. */
export function IntakePage() {
  const book = useBookId();
  const id = Number(useParams().intake);
  const [parameters] = useSearchParams();
  const row = parameters.has("row") ? Number(parameters.get("row")) : undefined;
  const intake = useQuery({
    queryKey: row === undefined ? ["intake", book, id] : ["intake", book, id, row],
    queryFn: () => must(api.GET("/api/books/{book}/intakes/{id}", { params: { path: { book, id }, query: { row } } })),
  });
  return <Waiting query={intake}>{(view) => <Look view={view} key={view.id} row={row} />}</Waiting>;
}

function Look({ view, row }: { view: Intake; row: number | undefined }) {
  const book = useBookId();
  const navigate = useNavigate();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [pointed, setPointed] = useState(row);
  useEffect(() => {
    if (row !== undefined) {
      document.getElementById(`row-${row}`)?.scrollIntoView({ block: "center" });
    }
  }, [row]);
  const isOpen = view.state === "looked-at";
  const changing = useMutation({
    mutationFn: (body: Schemas["ReadingRequest"]) =>
      must(api.PUT("/api/books/{book}/intakes/{id}/reading", { params: { path: { book, id: view.id } }, body })),
    onSuccess: (changed) => client.setQueryData(["intake", book, view.id], changed),
    onError: (e) => message.error(e.message),
  });
  const keeping = useMutation({
    mutationFn: () =>
      must(api.POST("/api/books/{book}/intakes/{id}/keep", { params: { path: { book, id: view.id } } })),
    onSuccess: async () => {
      await client.invalidateQueries();
      message.success(`${count(view.rowsKept, "row")} kept. They are the ledger now.`);
      await navigate(`/books/${book}/ledger`);
    },
    onError: (e) => message.error(e.message),
  });
  const keep = () => {
    if (isOpen && view.lacks.length === 0 && !keeping.isPending) {
      keeping.mutate();
    }
  };
  useKeys({ k: keep });

  // What the person set before stays set; the server works out the rest.
  const set = (column: Column, change: Partial<Pick<Column, "meaning" | "mark" | "order">>) => {
    const byYou = view.columns.filter((c) => c.reason === "set by you" || c.index === column.index);
    const changed = (c: Column) => (c.index === column.index ? { ...c, ...change } : c);
    const of = <T,>(pick: (c: Column) => T | null | undefined) =>
      Object.fromEntries(byYou.map(changed).flatMap((c) => (pick(c) == null ? [] : [[c.index, pick(c) as T]])));
    changing.mutate({
      headingRow: view.headingRow,
      meanings: of((c) => c.meaning),
      marks: Object.fromEntries(
        view.columns
          .map(changed)
          .flatMap((c) =>
            (c.notation === "set by you" || (c.index === column.index && change.mark)) && c.mark
              ? [[c.index, c.mark]]
              : [],
          ),
      ),
      orders: Object.fromEntries(
        view.columns
          .map(changed)
          .flatMap((c) =>
            (c.notation === "set by you" || (c.index === column.index && change.order)) && c.order
              ? [[c.index, c.order]]
              : [],
          ),
      ),
    });
  };
  const point = (finding: Schemas["FindingView"]) => {
    setPointed(finding.row);
    document.getElementById(`row-${finding.row}`)?.scrollIntoView({ block: "center" });
  };
  return (
    <div className="intake">
      <div className="intake-head">
        <h1>{view.file}</h1>
        <span className="quiet">
          {view.lacks.length > 0
            ? "cannot be read yet"
            : `headings in row ${view.headingRow ?? ""} · ${count(view.rowsRead, "row")} · ${count(view.customers, "customer")}`}
        </span>
        <span style={{ marginLeft: "auto" }} />
        <Button onClick={() => void navigate(`/books/${book}/ledger`)}>{isOpen ? "Do not keep" : "Back"}</Button>
        {isOpen && (
          <Button type="primary" disabled={view.lacks.length > 0} loading={keeping.isPending} onClick={keep}>
            Keep {count(view.rowsKept, "row")} <kbd aria-hidden>K</kbd>
          </Button>
        )}
      </div>
      <div className="intake-sheet" tabIndex={0} role="region" aria-label="The file as it stands">
        <FileSheet view={view} pointed={pointed} {...(isOpen && { onSet: set })} />
      </div>
      <aside className="intake-side" aria-label="What was found" tabIndex={0}>
        {view.lacks.map((lack) => (
          <Alert key={lack} type="error" title={lack} style={{ marginBottom: 8 }} />
        ))}
        {view.lacks.length === 0 && <Sums view={view} />}
        {view.findings.length > 0 && <h2 style={{ margin: "0 0 8px" }}>What was noticed</h2>}
        <FindingGroups findings={view.findings} onPoint={point} />
      </aside>
    </div>
  );
}

function Sums({ view }: { view: Intake }) {
  return (
    <>
      <h2>What would be kept</h2>
      <table className="sums">
        <tbody>
          <tr>
            <td>Rows read</td>
            <td className="figure">{view.rowsRead.toLocaleString("en-GB")}</td>
          </tr>
          <tr>
            <td>Rows to be kept</td>
            <td className="figure">{view.rowsKept.toLocaleString("en-GB")}</td>
          </tr>
          <tr>
            <td>Rows set aside</td>
            <td className="figure">{view.rowsSetAside.toLocaleString("en-GB")}</td>
          </tr>
          {view.totalLines > 0 && (
            <tr>
              <td>Total lines, kept out</td>
              <td className="figure">{view.totalLines.toLocaleString("en-GB")}</td>
            </tr>
          )}
          {view.ledgerSums.map((s) => {
            const kept = view.sums.find((k) => k.currency === s.currency)?.amount;
            const aside = view.setAsideSums.find((k) => k.currency === s.currency)?.amount;
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
            ];
          })}
        </tbody>
      </table>
    </>
  );
}

function FileSheet({
  view,
  pointed,
  onSet,
}: {
  view: Intake;
  pointed: number | undefined;
  onSet?: (column: Column, change: Partial<Pick<Column, "meaning" | "mark" | "order">>) => void;
}) {
  const bad = new Map<string, "error" | "warning">();
  for (const f of view.findings) {
    if (f.severity !== "note" && f.column) {
      bad.set(`${f.row}|${f.column}`, f.severity);
    }
  }
  const width = Math.max(view.columns.length, ...view.rows.map((r) => r.cells.length));
  return (
    <table>
      <thead>
        <tr>
          <th scope="col">Row</th>
          {view.columns.map((column) => (
            <th scope="col" key={column.index}>
              <Select
                size="small"
                variant={onSet ? "outlined" : "borderless"}
                disabled={!onSet}
                value={column.meaning}
                options={meanings}
                popupMatchSelectWidth={false}
                style={{ width: "100%" }}
                aria-label={`What “${column.heading}” is`}
                onChange={(meaning) => onSet?.(column, { meaning })}
              />
              <small>
                {column.reason}
                {column.notation && (
                  <>
                    {" · "}
                    {onSet ? (
                      <button
                        type="button"
                        className="link"
                        title="Turn it"
                        onClick={() =>
                          column.mark
                            ? onSet(column, { mark: column.mark === "point" ? "comma" : "point" })
                            : onSet(column, { order: column.order === "day-first" ? "month-first" : "day-first" })
                        }
                      >
                        {column.notation === "set by you" ? turned(column) : column.notation}
                      </button>
                    ) : (
                      column.notation
                    )}
                  </>
                )}
              </small>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {view.rows.map((row) => (
          <tr
            key={row.number}
            id={`row-${row.number}`}
            className={`${row.role}${row.number === pointed ? " pointed" : ""}`}
          >
            <th scope="row">{row.number}</th>
            {Array.from({ length: width }, (_, i) => (
              <td key={i} title={row.cells[i]} className={bad.get(`${row.number}|${view.columns[i]?.heading ?? ""}`)}>
                {row.cells[i]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function turned(column: Column): string {
  const words = {
    point: "decimal point",
    comma: "decimal comma",
    "day-first": "day first",
    "month-first": "month first",
    "year-first": "year first",
  };
  const what = column.mark ?? column.order;
  return `${what ? words[what] : ""}, set by you`;
}
