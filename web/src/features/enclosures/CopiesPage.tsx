import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Input, Modal, Segmented, type InputRef } from "antd";
import { useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { money } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import { Waiting } from "../../shared/Waiting";
import type { Schemas } from "../../shared/api/client";
import { StatementPages } from "../rounds/StatementPages";
import { roundOf } from "../rounds/api";
import { copiesOf, deleteEnclosures, fileAddress, sayCopyOf } from "./api";
import { GiveIn } from "./GiveIn";
import { NamesOfFiles } from "./NamesOfFiles";
import { useGiveIn } from "./useGiveIn";
import styles from "./CopiesPage.module.css";

type Line = Schemas["CopyLineView"];
type Said = Schemas["CopyOfRequest"];

const stateWords = {
  question: "In question",
  missing: "Missing",
  matched: "Matched",
  "not-needed": "None needed",
  "left-over": "Left over",
};
const states = Object.keys(stateWords) as Line["state"][];
const pageSize = 200;

/** Which file is the copy of which invoice of a round, with one of them in view. */
export function CopiesPage() {
  const book = useBookId();
  const id = Number(useParams().round);
  const client = useQueryClient();
  const round = useQuery({ queryKey: ["round", book, id], queryFn: () => roundOf(book, id) });
  const [state, setState] = useState<Line["state"] | "">("");
  const [find, setFind] = useState("");
  const [at, setAt] = useState(0);
  const [shown, setShown] = useState<number>();
  const [assigned, setAssigned] = useState<number>();
  const finder = useRef<InputRef>(null);
  const giving = useGiveIn("copy");
  const pages = useInfiniteQuery({
    queryKey: ["copies", book, id, state, find],
    queryFn: ({ pageParam }) => copiesOf(book, id, state, find, pageParam),
    initialPageParam: 0,
    getNextPageParam: (last, all) => (all.length * pageSize < last.found ? all.length * pageSize : undefined),
  });
  const lines = pages.data?.pages.flatMap((p) => p.lines) ?? [];
  const counts = pages.data?.pages[0]?.counts ?? [];
  const line = lines[Math.min(at, lines.length - 1)];
  const file = line?.files.find((f) => f.id === shown) ?? line?.files[0];
  const settle = {
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["copies", book] });
      void client.invalidateQueries({ queryKey: ["round", book, id] });
    },
  };
  const saying = useMutation({ mutationFn: (said: Said) => sayCopyOf(book, said), ...settle });
  const deleting = useMutation({ mutationFn: (files: number[]) => deleteEnclosures(book, files), ...settle });
  const goTo = (to: number) => {
    setAt(Math.max(0, Math.min(lines.length - 1, to)));
    setShown(undefined);
  };
  const nothing = () => file && saying.mutate({ files: [file.id], customer: "", numbers: [] });
  useKeys({
    j: () => goTo(at + 1),
    ArrowDown: () => goTo(at + 1),
    k: () => goTo(at - 1),
    ArrowUp: () => goTo(at - 1),
    f: () => finder.current?.focus(),
    a: () => setAssigned(file?.id),
    n: nothing,
    u: () => file && saying.mutate({ files: [file.id], customer: "", numbers: null }),
  });
  const error = saying.error ?? deleting.error;
  return (
    <div className={`page ${styles.page}`}>
      <div className="page-head">
        <h1>Copies</h1>
        <Link to={`/books/${book}/rounds/${id}`}>{round.data?.name}</Link>
        <Input
          ref={finder}
          size="small"
          className="width-230 push"
          allowClear
          aria-label="Find a customer, number or file"
          placeholder="Find…"
          suffix={<kbd aria-hidden>F</kbd>}
          value={find}
          onChange={(e) => {
            setFind(e.target.value);
            goTo(0);
          }}
        />
      </div>
      <GiveIn giving={giving} folders>
        <NamesOfFiles />
        {error && <Alert className="above-8" type="error" title={error.message} />}
        <Segmented<Line["state"] | "">
          className="above-10"
          aria-label="Which copies"
          value={state}
          options={[
            { value: "", label: "All" },
            ...states.map((s) => ({
              value: s,
              label: `${stateWords[s]} ${counts.find((c) => c.state === s)?.count ?? ""}`,
            })),
          ]}
          onChange={(to) => {
            setState(to);
            goTo(0);
          }}
        />
        <div className={styles.both}>
          <div className={styles.list}>
            <Waiting query={pages}>
              {() =>
                lines.length === 0 ? (
                  <p className="quiet">
                    {state || find
                      ? "None."
                      : "No item of this round is an invoice or credit note with a number, by which a copy could be found."}
                  </p>
                ) : (
                  <table className="ledger sheet" aria-label="Copies">
                    <thead>
                      <tr>
                        <th scope="col" className={styles.customer}>
                          Customer
                        </th>
                        <th scope="col">Number</th>
                        <th scope="col" className="figure">
                          Open
                        </th>
                        <th scope="col">Copy</th>
                      </tr>
                    </thead>
                    <tbody>
                      {lines.map((l, i) => (
                        <CopyRow
                          key={`${l.customer} ${l.number} ${l.files[0]?.id ?? 0}`}
                          line={l}
                          isShown={l === line}
                          shownFile={l === line ? file?.id : undefined}
                          onShow={(f) => {
                            setAt(i);
                            setShown(f);
                          }}
                          onTake={(f) => saying.mutate({ files: [f], customer: l.customer, numbers: [l.number] })}
                        />
                      ))}
                    </tbody>
                  </table>
                )
              }
            </Waiting>
            {pages.hasNextPage && (
              <Button className="above-8" loading={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
                Show more
              </Button>
            )}
          </div>
          <div className={styles.view} role="region" aria-label="The copy in view" tabIndex={0}>
            {file && line ? (
              <>
                <p className={styles.actions}>
                  {line.state === "question" && line.number && (
                    <Button
                      size="small"
                      type="primary"
                      onClick={() =>
                        saying.mutate({ files: [file.id], customer: line.customer, numbers: [line.number] })
                      }
                    >
                      This is the copy of {line.number}
                    </Button>
                  )}
                  <Button size="small" onClick={() => setAssigned(file.id)}>
                    Assign… <kbd aria-hidden>A</kbd>
                  </Button>
                  <Button size="small" onClick={nothing}>
                    No copy <kbd aria-hidden>N</kbd>
                  </Button>
                  <Button size="small" onClick={() => saying.mutate({ files: [file.id], customer: "", numbers: null })}>
                    Undo <kbd aria-hidden>U</kbd>
                  </Button>
                  <Button size="small" onClick={() => deleting.mutate([file.id])}>
                    Delete file
                  </Button>
                </p>
                {file.contentType === "application/pdf" ? (
                  <StatementPages address={fileAddress(book, file.id)} name={file.name} version="" />
                ) : (
                  <p>
                    <a href={fileAddress(book, file.id)}>{file.name}</a>{" "}
                    <span className="quiet">is no PDF; download it to look at it.</span>
                  </p>
                )}
              </>
            ) : (
              <p className="quiet">{line ? "There is no copy of this invoice yet." : ""}</p>
            )}
          </div>
        </div>
      </GiveIn>
      {assigned !== undefined && (
        <AssignDialog
          documents={lines.filter((l) => l.amount !== "")}
          onAssign={(customer, number) =>
            saying.mutate(
              { files: [assigned], customer, numbers: [number] },
              { onSuccess: () => setAssigned(undefined) },
            )
          }
          error={saying.error?.message}
          onClose={() => setAssigned(undefined)}
        />
      )}
    </div>
  );
}

function CopyRow({
  line,
  isShown,
  shownFile,
  onShow,
  onTake,
}: {
  line: Line;
  isShown: boolean;
  shownFile: number | undefined;
  onShow: (file: number | undefined) => void;
  /** A file was dropped on the document. */
  onTake: (file: number) => void;
}) {
  const isDocument = line.amount !== "";
  return (
    <tr
      className={isShown ? styles.shown : undefined}
      aria-selected={isShown}
      onClick={() => onShow(undefined)}
      onDragOver={(e) => isDocument && e.dataTransfer.types.includes(fileType) && e.preventDefault()}
      onDrop={(e) => {
        const dropped = Number(e.dataTransfer.getData(fileType));
        if (isDocument && dropped > 0) {
          e.preventDefault();
          e.stopPropagation();
          onTake(dropped);
        }
      }}
    >
      <td>{line.name}</td>
      <td className="nowrap">{line.number}</td>
      <td className="figure">{line.amount && money(line.amount, line.currency)}</td>
      <td>
        <span className={styles[line.state]}>{stateWords[line.state]}</span>
        {line.files.map((f) => (
          <button
            key={f.id}
            type="button"
            className={`link ${styles.file} ${f.id === shownFile && line.files.length > 1 ? styles.inView : ""}`}
            draggable
            onDragStart={(e) => e.dataTransfer.setData(fileType, String(f.id))}
            onClick={(e) => {
              e.stopPropagation();
              onShow(f.id);
            }}
          >
            {f.name}
          </button>
        ))}
        {line.reason && <small className="quiet"> {line.reason}</small>}
      </td>
    </tr>
  );
}

const fileType = "application/x-rendal-file";

/** Says by its number which invoice a file is the copy of. */
function AssignDialog({
  documents,
  error,
  onAssign,
  onClose,
}: {
  documents: Line[];
  error: string | undefined;
  onAssign: (customer: string, number: string) => void;
  onClose: () => void;
}) {
  const [text, setText] = useState("");
  const sought = text.trim().toLowerCase();
  const found = documents.filter(
    (d) => sought && (d.number.toLowerCase().includes(sought) || d.name.toLowerCase().includes(sought)),
  );
  const first = found[0];
  return (
    <Modal
      title="Which invoice is it the copy of?"
      open
      okText={first ? `Assign to ${first.number}` : "Assign"}
      okButtonProps={{ disabled: !first }}
      onOk={() => first && onAssign(first.customer, first.number)}
      onCancel={onClose}
      destroyOnHidden
    >
      <Input
        autoFocus
        aria-label="Number or customer"
        placeholder="Number or customer"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onPressEnter={() => first && onAssign(first.customer, first.number)}
      />
      {sought && found.length === 0 && <p className="quiet">None of the listed invoices.</p>}
      <ul className={styles.choices}>
        {found.slice(0, 8).map((d) => (
          <li key={`${d.customer} ${d.number}`}>
            <button type="button" className="link" onClick={() => onAssign(d.customer, d.number)}>
              {d.number} <span className="quiet">{d.name}</span> {money(d.amount, d.currency)}
            </button>
          </li>
        ))}
      </ul>
      {error && <Alert type="error" title={error} />}
    </Modal>
  );
}
