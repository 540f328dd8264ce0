import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Drawer, Input } from "antd";
import { useRef } from "react";
import { useSearchParams } from "react-router";
import { api, must, upload, type Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { FindingGroups } from "../ledger/FindingGroups";
import "../ledger/ledger.css";
import { CustomerCard } from "./CustomerCard";

/** The customers, found as one types, with the card of one at the side. */
export function CustomersPage() {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const input = useRef<HTMLInputElement>(null);
  const [parameters, setParameters] = useSearchParams();
  const search = parameters.get("search") ?? "";
  const open = parameters.get("card");
  const customers = useQuery({
    queryKey: ["customers", book, search],
    queryFn: () => must(api.GET("/api/books/{book}/customers", { params: { path: { book }, query: { search } } })),
    placeholderData: keepPreviousData,
  });
  const taking = useMutation({
    mutationFn: (file: File) => upload<Schemas["CustomerListView"]>(`/api/books/${book}/customers/list`, file),
    onSuccess: async (list) => {
      await client.invalidateQueries();
      message.success(`${count(list.customers, "customer")} taken in.`);
    },
    onError: (e) => message.error(e.message),
  });
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
  return (
    <div className="page">
      <div className="page-head">
        <h1>Customers</h1>
        <Input
          style={{ width: 280 }}
          allowClear
          aria-label="Search customers"
          placeholder="Code, name, contact or address"
          value={search}
          onChange={(e) => change({ search: e.target.value })}
        />
        <span className="quiet" role="status">
          {customers.data &&
            (customers.data.length === 500 ? "the first 500" : count(customers.data.length, "customer"))}
        </span>
        <input
          ref={input}
          type="file"
          accept=".csv,.txt,.tsv"
          className="visually-hidden"
          tabIndex={-1}
          aria-label="Customer list"
          onChange={(e) => e.target.files?.[0] && taking.mutate(e.target.files[0])}
        />
        <Button className="push" loading={taking.isPending} onClick={() => input.current?.click()}>
          Take in a customer list
        </Button>
      </div>
      {taking.data && taking.data.findings.length > 0 && (
        <section aria-label="What was noticed in the customer list" style={{ marginBottom: 12 }}>
          <h2 style={{ marginBottom: 6 }}>Noticed in the list</h2>
          <FindingGroups findings={taking.data.findings} />
        </section>
      )}
      <Waiting query={customers}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet">
              {search
                ? `Nobody is found by “${search}”.`
                : "Nobody yet. Customers come with the ledger, or take in a customer list."}
            </p>
          ) : (
            <table className="ledger sheet">
              <thead>
                <tr>
                  <th scope="col">Code</th>
                  <th scope="col">Name</th>
                  <th scope="col">Contact</th>
                  <th scope="col">E-mail</th>
                  <th scope="col">Language</th>
                  <th scope="col">Note</th>
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <tr key={c.key} className="pick">
                    <td>{c.key}</td>
                    <td>
                      <button type="button" className="link" onClick={() => change({ card: c.key })}>
                        {c.name}
                      </button>
                    </td>
                    <td>{[c.title, c.contact].filter(Boolean).join(" ")}</td>
                    <td>{c.email || <span className="quiet">none</span>}</td>
                    <td>{c.language}</td>
                    <td className="quiet">
                      {[
                        c.onHold && "on hold",
                        c.badAddresses.length > 0 && "address looks wrong",
                        c.fromLedger && "from the ledger",
                      ]
                        .filter(Boolean)
                        .join(", ")}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )
        }
      </Waiting>
      <Drawer
        open={open !== null}
        onClose={() => change({ card: null })}
        title="Customer card"
        size={420}
        destroyOnHidden
      >
        {open !== null && <CustomerCard customer={open} onDone={() => change({ card: null })} />}
      </Drawer>
    </div>
  );
}
