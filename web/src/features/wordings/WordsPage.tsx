import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, App, Button, Form, Tabs } from "antd";
import { useState } from "react";
import { useSearchParams } from "react-router";

import { useBook, useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { RulesForm } from "../books/RulesForm";
import { LayoutsPage } from "../layouts/LayoutsPage";
import { useSamples } from "../layouts/useLayouts";
import { SendersPage } from "../senders/SendersPage";
import { FirmFields, lines, type FirmText } from "../sign-in/FirmFields";
import { CustomerInView } from "./slotExamples";
import { Reader } from "./Reader";
import { WordingEditor } from "./WordingEditor";
import { NewWording } from "./NewWording";
import { useWordings } from "./useWordings";
import { WrittenIn } from "./WrittenIn";
import { saveFirm } from "./api";
import styles from "./WordsPage.module.css";

/** The words of messages, the paper of statements, and the account that they go out by. */
export function WordsPage() {
  const [parameters, setParameters] = useSearchParams();
  return (
    <div className="page">
      <div className="page-head">
        <h1>Words & paper</h1>
      </div>
      <Tabs
        activeKey={parameters.get("part") ?? "words"}
        onChange={(part) => setParameters({ part })}
        items={[
          { key: "words", label: "Words of the message", children: <Wordings /> },
          { key: "paper", label: "Letterhead", children: <Letterhead /> },
          { key: "layouts", label: "Layouts", children: <LayoutsPage /> },
          { key: "figures", label: "Figures", children: <RulesForm /> },
          { key: "sender", label: "Senders", children: <SendersPage /> },
        ]}
      />
    </div>
  );
}

function Wordings() {
  const [picked, setPicked] = useState<number>();
  const longest = useSamples().data?.[0];
  const [inView, setInView] = useState<string>();
  const customer = inView ?? longest?.customer;
  const wordings = useWordings();
  return (
    <Waiting query={wordings}>
      {(list) => {
        const shown = list.wordings.find((w) => w.id === picked) ?? list.wordings[0];
        return (
          <div className={`words ${styles.wide}`}>
            <nav className="side-list" aria-label="Wordings">
              {list.wordings.map((w) => (
                <button key={w.id} type="button" aria-current={w.id === shown?.id} onClick={() => setPicked(w.id)}>
                  {w.name}
                  {w.errors.length > 0 ? " · has an error" : w.gone.length > 0 && " · a column is gone"}
                </button>
              ))}
              <NewWording list={list} from={shown} onMade={setPicked} />
              {shown && <WrittenIn key={shown.id} wording={shown} list={list} />}
            </nav>
            <CustomerInView value={customer ?? null}>
              <div>
                {shown && (
                  <WordingEditor
                    key={shown.id}
                    wording={shown.id}
                    beside={(draft) => (
                      <Reader wording={shown.id} draft={draft} customer={customer} onPick={setInView} />
                    )}
                  />
                )}
              </div>
            </CustomerInView>
          </div>
        );
      }}
    </Waiting>
  );
}

function Letterhead() {
  const book = useBookId();
  const client = useQueryClient();
  const details = useBook();
  const { message } = App.useApp();
  const saving = useMutation({
    mutationFn: (text: FirmText) =>
      saveFirm(book, {
        name: text.firm,
        addressLines: lines(text.address),
        contactLines: lines(text.contact),
        paymentLines: lines(text.payment),
        footLines: lines(text.foot),
      }),
    onSuccess: async () => {
      await client.invalidateQueries();
      message.success("The next statements carry it.");
    },
  });
  return (
    <Waiting query={details}>
      {(b) => (
        <Form<FirmText>
          className="at-most-520"
          layout="vertical"
          requiredMark={false}
          initialValues={{
            firm: b.name,
            address: b.addressLines.join("\n"),
            contact: b.contactLines.join("\n"),
            payment: b.paymentLines.join("\n"),
            foot: b.footLines.join("\n"),
          }}
          onFinish={(text) => saving.mutate(text)}
        >
          {saving.error && <Alert className="below-12" type="error" title={saving.error.message} />}
          <FirmFields isNew={false} />
          <Button type="primary" htmlType="submit" loading={saving.isPending}>
            Save letterhead
          </Button>
        </Form>
      )}
    </Waiting>
  );
}
