import { useQueries, useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Alert, Button, Drawer, Input } from "antd";
import { useRef } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { fileEndings, useTakeIn } from "../ledger/useTakeIn";
import { CustomerCard } from "./CustomerCard";
import styles from "./CustomersPage.module.css";
import { customerPart } from "./api";

type Line = Schemas["CustomerLine"];

const part = 100;
const rowHeight = 25;

const columns: { order?: string; title: string; cell: (c: Line) => React.ReactNode }[] = [
  { order: "key", title: "Code", cell: (c) => c.key },
  { order: "name", title: "Name", cell: (c) => c.name },
  { title: "Contact", cell: (c) => c.contact },
  { order: "address", title: "E-mail", cell: (c) => address(c) },
  { title: "Delivery", cell: (c) => (c.delivery === "email" ? "e-mail" : c.delivery) },
  { order: "unit", title: "Unit", cell: (c) => c.unit },
  { title: "Language", cell: (c) => c.language },
  {
    title: "Note",
    cell: (c) =>
      [c.onHold && "on hold", c.hasBadAddress && "address looks wrong", c.fromLedger && "from the ledger"]
        .filter(Boolean)
        .join(", "),
  },
];

/** All customers, found as one types, however many there are; the card of one at the side. */
export function CustomersPage() {
  const book = useBookId();
  const input = useRef<HTMLInputElement>(null);
  const [parameters, setParameters] = useSearchParams();
  const search = parameters.get("search") ?? "";
  const order = parameters.get("order") ?? "name";
  const descending = parameters.get("down") === "1";
  const open = parameters.get("card");
  const taking = useTakeIn("customers");
  const query = (from: number) => ({
    queryKey: ["customers", book, search, order, descending, from],
    queryFn: () => customerPart(book, { search, order, descending, from, count: part }),
    staleTime: 30_000,
  });
  const head = useQuery({ ...query(0), placeholderData: (before: Schemas["CustomerPart"] | undefined) => before });
  const change = (changes: Record<string, string | null>) =>
    setParameters((now) => {
      for (const [key, value] of Object.entries(changes)) {
        if (value) {
          now.set(key, value);
        } else {
          now.delete(key);
        }
      }
      return now;
    });
  const sort = (by: string) => change({ order: by, down: order === by && !descending ? "1" : null });
  return (
    <div className={`${styles.customers} page`}>
      <div className="page-head">
        <h1>Customers</h1>
        <Input
          className="width-280"
          allowClear
          aria-label="Search customers"
          placeholder="Code, name, contact or address"
          value={search}
          onChange={(e) => change({ search: e.target.value })}
        />
        <span className="quiet" role="status">
          {head.data && count(head.data.count, "customer")}
        </span>
        <input
          ref={input}
          type="file"
          accept={fileEndings}
          className="visually-hidden"
          tabIndex={-1}
          aria-label="Customer list"
          onChange={(e) => e.target.files?.[0] && taking.mutate(e.target.files[0])}
        />
        <Button className="push" loading={taking.isPending} onClick={() => input.current?.click()}>
          Take in a customer list
        </Button>
      </div>
      {taking.error && <Alert className="below-10" type="error" title={taking.error.message} />}
      {head.error && <Alert type="error" title={head.error.message} />}
      {head.data &&
        (head.data.count === 0 ? (
          <p className="quiet">
            {search
              ? `Nobody is found by “${search}”.`
              : "Nobody yet. Customers come with the ledger, or take in a customer list."}
          </p>
        ) : (
          <List
            key={`${search} ${order} ${descending}`}
            size={head.data.count}
            query={query}
            order={order}
            descending={descending}
            onSort={sort}
            onOpen={(key) => change({ card: key })}
          />
        ))}
      <Drawer
        open={open !== null}
        onClose={() => change({ card: null })}
        title="Customer card"
        size={640}
        destroyOnHidden
      >
        {open !== null && (
          <CustomerCard
            key={open}
            customer={open}
            onDone={() => change({ card: null })}
            onOpen={(key) => change({ card: key })}
          />
        )}
      </Drawer>
    </div>
  );
}

function List({
  size,
  query,
  order,
  descending,
  onSort,
  onOpen,
}: {
  size: number;
  query: (from: number) => {
    queryKey: unknown[];
    queryFn: () => Promise<Schemas["CustomerPart"]>;
    staleTime: number;
  };
  order: string;
  descending: boolean;
  onSort: (by: string) => void;
  onOpen: (key: string) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: size,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 30,
  });
  const shown = rows.getVirtualItems();
  const first = Math.floor((shown[0]?.index ?? 0) / part);
  const last = Math.floor((shown.at(-1)?.index ?? 0) / part);
  const parts = useQueries({
    queries: Array.from({ length: last - first + 1 }, (_, i) => query((first + i) * part)),
  });
  const at = (index: number) => parts[Math.floor(index / part) - first]?.data?.customers[index % part];
  const focusRow = (index: number) => {
    if (index >= 0 && index < size) {
      rows.scrollToIndex(index);
      requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(`[data-index="${index}"]`)?.focus());
    }
  };
  return (
    <div className={styles.customerList} ref={scroller}>
      <table className="ledger sheet" aria-rowcount={size + 1}>
        <thead>
          <tr>
            {columns.map((c) => (
              <th
                scope="col"
                key={c.title}
                aria-sort={c.order === order ? (descending ? "descending" : "ascending") : undefined}
              >
                {c.order ? (
                  <button type="button" className={styles.sort} onClick={() => onSort(c.order ?? "name")}>
                    {c.title} <span aria-hidden>{c.order === order ? (descending ? "▾" : "▴") : ""}</span>
                  </button>
                ) : (
                  c.title
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr aria-hidden style={{ height: shown[0]?.start ?? 0 }} />
          {shown.map(({ index }) => {
            const customer = at(index);
            return (
              <tr key={index} aria-rowindex={index + 2} className="pick" style={{ height: rowHeight }}>
                {columns.map((c) => (
                  <td key={c.title} className={c.title === "Note" ? "quiet" : undefined}>
                    {customer &&
                      (c.order === "name" ? (
                        <button
                          type="button"
                          className="link"
                          data-index={index}
                          onClick={() => onOpen(customer.key)}
                          onKeyDown={(e) => {
                            const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
                            if (by !== undefined) {
                              e.preventDefault();
                              focusRow(index + by);
                            }
                          }}
                        >
                          {customer.name}
                        </button>
                      ) : (
                        c.cell(customer)
                      ))}
                  </td>
                ))}
              </tr>
            );
          })}
          <tr aria-hidden style={{ height: Math.max(rows.getTotalSize() - (shown.at(-1)?.end ?? 0), 0) }} />
        </tbody>
      </table>
    </div>
  );
}

function address(c: Line) {
  return c.address ? (
    <>
      {c.address}
      {c.moreAddresses > 0 && <span className="quiet"> +{c.moreAddresses}</span>}
    </>
  ) : (
    <span className="quiet">none</span>
  );
}
