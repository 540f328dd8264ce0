import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Flex } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { served } from "../../shared/served";
import { correctionList, takeCorrectionBack } from "./api";

const what: Record<Schemas["CorrectionKind"], string> = {
  cell: "one value",
  everywhere: "everywhere",
  "row-left-out": "row left out",
  "customers-joined": "one customer",
  card: "on the card",
};

const shown = 8;

/** What was put right over the source: to be carried back into it, or taken back. */
export function CorrectionList() {
  const book = useBookId();
  const { moment } = useClock();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [all, setAll] = useState(false);
  const corrections = useQuery({
    queryKey: ["corrections", book],
    queryFn: () => correctionList(book),
  });
  const takingBack = useMutation({
    mutationFn: (id: number) => takeCorrectionBack(book, id),
    onSuccess: async () => {
      await client.invalidateQueries();
      message.success("Taken back. It no longer counts for files that are taken in from now on.");
    },
    onError: (e) => message.error(e.message),
  });
  return (
    <Waiting query={corrections}>
      {(list) =>
        list.length === 0 ? null : (
          <section className="above-18" aria-labelledby="corrections">
            <Flex align="center" gap={12} className="below-6">
              <h2 id="corrections">Corrected here, still wrong in the source</h2>
              <span className="quiet">{count(list.length, "correction")}</span>
              <Button size="small" className="push" href={served(`/api/books/${book}/corrections/list.csv`)}>
                Export the list
              </Button>
            </Flex>
            <table className="ledger sheet">
              <thead>
                <tr>
                  <th scope="col">Customer or row</th>
                  <th scope="col">Column</th>
                  <th scope="col">In the source</th>
                  <th scope="col">Corrected</th>
                  <th scope="col">What</th>
                  <th scope="col">Corrected</th>
                  <th scope="col">
                    <span className="visually-hidden">Take back</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {list.slice(0, all ? undefined : shown).map((c) => (
                  <tr key={c.id}>
                    <td>
                      {c.concerns || c.was}
                      {c.row > 0 && (
                        <small className="quiet">
                          {" "}
                          {c.file} row {c.row}
                        </small>
                      )}
                    </td>
                    <td>{c.column}</td>
                    <td>{c.was || <span className="quiet">nothing</span>}</td>
                    <td>
                      {c.kind === "row-left-out" ? c.reason : c.becomes || <span className="quiet">nothing</span>}
                    </td>
                    <td>{what[c.kind]}</td>
                    <td>
                      {c.madeBy}, {moment(c.madeAt)}
                    </td>
                    <td>
                      <button type="button" className="link" onClick={() => takingBack.mutate(c.id)}>
                        Take back
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {list.length > shown && (
              <button type="button" className="link" onClick={() => setAll(!all)}>
                {all ? "Show fewer" : `Show all ${list.length}`}
              </button>
            )}
          </section>
        )
      }
    </Waiting>
  );
}
