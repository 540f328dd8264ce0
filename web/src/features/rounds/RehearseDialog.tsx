import { Alert, Button, Input, Modal, Radio } from "antd";
import { useId, useState } from "react";
import { count } from "../../shared/figure";
import { served } from "../../shared/served";
import { Shape, statusWords } from "../../shared/Shape";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import type { Schemas } from "../../shared/api/client";
import styles from "./RehearseDialog.module.css";
import { useRehearsalActions, useRehearsals, type Rehearsal } from "./useRehearsals";
import type { Parcel, Round } from "./useRound";

/** What people look for in a message before all of them go. */
const toCheck = [
  "names and titles, and how they are addressed",
  "spaces and full stops around what was filled in",
  "dates and amounts as they are written",
  "the right file on the right message",
];

/** Sends a few parcels to oneself first, and notes that one has looked at what arrived. */
export function RehearseDialog({
  round,
  shown,
  marked,
  ready,
  onClose,
}: {
  round: Round;
  shown: Parcel | undefined;
  marked: number[];
  ready: number;
  onClose: () => void;
}) {
  const rehearsals = useRehearsals(round);
  return (
    <Modal title={`Rehearse ${round.name}`} open footer={null} onCancel={onClose} width={640}>
      <Waiting query={rehearsals}>
        {(of) => (
          <>
            <Begin round={round} of={of} shown={shown} marked={marked} ready={ready} />
            {of.rehearsals.length > 0 && <Begun round={round} rehearsals={of.rehearsals} />}
          </>
        )}
      </Waiting>
    </Modal>
  );
}

type Which = "picked" | "this" | "marked" | "all";

function Begin({
  round,
  of,
  shown,
  marked,
  ready,
}: {
  round: Round;
  of: Schemas["RehearsalsView"];
  shown: Parcel | undefined;
  marked: number[];
  ready: number;
}) {
  const { begin } = useRehearsalActions(round);
  const field = useId();
  const [address, setAddress] = useState(of.address);
  const [which, setWhich] = useState<Which>(marked.length > 0 ? "marked" : "picked");
  const canThis = shown !== undefined && shown.problem === "";
  const parcels: Record<Which, number[] | null> = {
    picked: of.picked.map((p) => p.parcel),
    this: shown ? [shown.id] : [],
    marked,
    all: null,
  };
  const total = which === "all" ? ready : (parcels[which]?.length ?? 0);
  return (
    <form
      className={styles.begin}
      onSubmit={(e) => {
        e.preventDefault();
        if (total > 0 && address.trim() !== "") {
          begin.mutate({ parcels: parcels[which], address });
        }
      }}
    >
      <p className="only-below-8">
        The messages go to the address below and to nobody else, exactly as they would go, with “Rehearsal:” before the
        subject. They are in no customer’s history and remind of nothing.
      </p>
      <Radio.Group
        className={styles.which}
        aria-label="Which parcels"
        value={which}
        onChange={(e) => setWhich(e.target.value as Which)}
        options={[
          {
            value: "picked",
            disabled: of.picked.length === 0,
            label: (
              <>
                {of.picked.length === 3 ? "Three that show most" : "Those that show most"}:{" "}
                <span className="quiet">{of.picked.map((p) => p.why).join("; ") || "nothing is ready yet"}</span>
              </>
            ),
          },
          { value: "this", disabled: !canThis, label: shown ? `This one: ${shown.name}` : "This one" },
          { value: "marked", disabled: marked.length === 0, label: `Those marked: ${marked.length}` },
          { value: "all", disabled: ready === 0, label: `All that are ready: ${ready}` },
        ]}
      />
      <div className={styles.address}>
        <label htmlFor={field}>To</label>
        <Input
          id={field}
          value={address}
          inputMode="email"
          placeholder="your own address, or a colleague’s"
          onChange={(e) => setAddress(e.target.value)}
        />
        <Button
          type="primary"
          htmlType="submit"
          disabled={total === 0 || address.trim() === ""}
          loading={begin.isPending}
        >
          Send {count(total, "rehearsal")}
        </Button>
      </div>
      {begin.error && <Alert type="error" title={begin.error.message} />}
    </form>
  );
}

function Begun({ round, rehearsals }: { round: Round; rehearsals: Rehearsal[] }) {
  const book = useBookId();
  const { moment } = useClock();
  const { look } = useRehearsalActions(round);
  return (
    <section aria-label="Rehearsed">
      <h3 className={styles.heading}>Rehearsed</h3>
      <p className="only-below-8 quiet">Check: {toCheck.join("; ")}.</p>
      <table className={styles.rehearsed}>
        <tbody>
          {rehearsals.flatMap((r) => [
            <tr key={r.id}>
              <th colSpan={3} scope="rowgroup">
                {moment(r.at)}, {r.by}, to {r.address}
              </th>
            </tr>,
            ...r.parcels.map((p) => (
              <tr key={p.parcel}>
                <td>
                  <Shape status={p.status} label={false} />{" "}
                  {p.status === "sent" ? (
                    <a
                      href={served(`/api/books/${book}/dispatch/${p.parcel}/messages/0/page`)}
                      target="_blank"
                      rel="noreferrer"
                    >
                      {p.name}
                    </a>
                  ) : (
                    p.name
                  )}
                </td>
                <td className="quiet">
                  {statusWords[p.status]}
                  {!p.isAsNow && " · changed since"}
                </td>
                <td>
                  {p.lookedAtBy.length > 0 ? (
                    <>looked at by {p.lookedAtBy.join(", ")}</>
                  ) : (
                    <Button
                      size="small"
                      disabled={p.status !== "sent" || look.isPending}
                      onClick={() => look.mutate({ rehearsal: r.id, parcel: p.parcel })}
                    >
                      I have looked at it
                    </Button>
                  )}
                </td>
              </tr>
            )),
          ])}
        </tbody>
      </table>
      {look.error && <Alert type="error" title={look.error.message} />}
    </section>
  );
}
