import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button } from "antd";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { count, money } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { CardLink } from "./CardLink";
import { CorrectionList } from "./CorrectionList";
import { FindingGroups } from "./FindingGroups";
import { useLedger } from "./useLedger";
import { fileEndings, useTakeIn } from "./useTakeIn";
import styles from "./LedgerPage.module.css";
import { intakeList, undoIntake } from "./api";

/** The ledger as it is, the place to take in a newer file, and the files before. */
export function LedgerPage() {
  const book = useBookId();
  const { moment } = useClock();
  const navigate = useNavigate();
  const client = useQueryClient();
  const { message, modal } = App.useApp();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const ledger = useLedger();
  const intakes = useQuery({
    queryKey: ["intakes", book],
    queryFn: () => intakeList(book),
  });
  const taking = useTakeIn("ledger");
  const undoing = useMutation({
    mutationFn: (id: number) => undoIntake(book, id),
    onSuccess: async () => {
      await client.invalidateQueries();
      message.success("Undone. All is what it was before.");
    },
    onError: (e) => message.error(e.message),
  });
  const take = (files: FileList | null) => {
    const file = files?.[0];
    if (file) {
      taking.mutate(file);
    }
  };
  const undo = (line: Schemas["IntakeLine"]) =>
    modal.confirm({
      title: `Undo ${line.file}?`,
      content:
        line.kind === "ledger"
          ? "Its rows leave the ledger, and the file kept before it counts again. Rounds made from it stay."
          : "The cards are again what they were before it, with what was corrected since.",
      okText: "Undo",
      cancelText: "Cancel",
      onOk: () => undoing.mutate(line.id),
    });
  return (
    <div className="page">
      <div className="page-head">
        <h1>Ledger</h1>
      </div>
      <div
        className={over ? `${styles.drop} ${styles.over}` : styles.drop}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          take(e.dataTransfer.files);
        }}
      >
        <input
          ref={input}
          type="file"
          accept={fileEndings}
          className="visually-hidden"
          aria-label="Ledger file"
          tabIndex={-1}
          onChange={(e) => take(e.target.files)}
        />
        <Button type="primary" loading={taking.isPending} onClick={() => input.current?.click()}>
          Take in a ledger file
        </Button>
        <span>
          or drop it here, or paste cells from your spreadsheet with <kbd>Ctrl V</kbd>. XLSX, XLS, ODS or CSV as your
          accounting program gives it out, with whatever headings it has; you look at it before anything is kept.
        </span>
      </div>
      {taking.error && <Alert className="above-10" type="error" title={taking.error.message} />}
      <Waiting query={ledger}>
        {({ ledger: now }) =>
          now === null ? null : (
            <section className="above-18">
              <h2>{now.sheet ? `${now.file}, ${now.sheet}` : now.file}</h2>
              <p className="quiet under-heading">
                kept {moment(now.keptAt)} · {count(now.rows, "row")} of {count(now.customers, "customer")} ·{" "}
                {now.sums.map((s) => `${money(s.total, s.currency)} open`).join(" · ")}
                {now.rowsSetAside > 0 && ` · ${count(now.rowsSetAside, "row")} set aside`}
                {now.rowsLeftOut > 0 && ` · ${count(now.rowsLeftOut, "row")} left out by hand`}
              </p>
              {now.findings.length > 0 && (
                <FindingGroups
                  groups={now.findings}
                  onPoint={(f) => void navigate(`/books/${book}/ledger/${now.intakeId}?row=${f.row}`)}
                  remedyOf={(f) => <CardLink finding={f} />}
                />
              )}
            </section>
          )
        }
      </Waiting>
      <CorrectionList />
      <section className="above-18">
        <h2 className="below-6">Files taken in</h2>
        <Waiting query={intakes}>
          {(list) =>
            list.length === 0 ? (
              <p className="quiet">None yet.</p>
            ) : (
              <table className="ledger sheet">
                <thead>
                  <tr>
                    <th scope="col">File</th>
                    <th scope="col">For</th>
                    <th scope="col">Taken in</th>
                    <th scope="col" className="figure">
                      Rows
                    </th>
                    <th scope="col">State</th>
                    <th scope="col">
                      <span className="visually-hidden">Undo</span>
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {list.map((line) => (
                    <tr key={line.id}>
                      <td>
                        <Link to={`/books/${book}/ledger/${line.id}`}>{line.file}</Link>
                      </td>
                      <td>{line.kind === "ledger" ? "ledger" : "customers"}</td>
                      <td>{moment(line.madeAt)}</td>
                      <td className="figure">
                        {line.state === "looked-at" ? "" : line.rowsKept.toLocaleString("en-GB")}
                      </td>
                      <td>
                        {line.isLedger
                          ? "is the ledger"
                          : line.state === "looked-at"
                            ? "not kept"
                            : line.state === "undone"
                              ? "undone"
                              : line.kind === "customers"
                                ? "kept"
                                : "kept before"}
                      </td>
                      <td>
                        {line.canUndo && (
                          <button type="button" className="link" onClick={() => undo(line)}>
                            Undo
                          </button>
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )
          }
        </Waiting>
      </section>
    </div>
  );
}
