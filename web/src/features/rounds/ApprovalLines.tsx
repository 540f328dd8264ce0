import type { Schemas } from "../../shared/api/client";
import { useClock } from "../../shared/useClock";

/** What a second person is told before they release a round that another one prepared. */
export function ApprovalLines({
  approval: a,
  onPick,
}: {
  approval: NonNullable<Schemas["ApprovalView"]>;
  onPick: (customer: string) => void;
}) {
  const { moment } = useClock();
  return (
    <>
      <dt>Prepared by</dt>
      <dd>
        {a.preparers.join(", ")}
        {!a.mayRelease && "; somebody else who has this book releases it"}
      </dd>
      <dt>Requested</dt>
      <dd>
        {a.requestedAt ? `by ${a.requestedBy}, ${moment(a.requestedAt)}` : "not yet"}
        {a.requestedAt && (
          <div>{a.since === "" ? "Nothing of what goes changed since." : <strong>Since then: {a.since}.</strong>}</div>
        )}
      </dd>
      {a.lookedAtBy.length > 0 && (
        <>
          <dt>Looked at by</dt>
          <dd>{a.lookedAtBy.join(", ")}, in a rehearsal</dd>
        </>
      )}
      {a.mayRelease && a.sample.length > 0 && (
        <>
          <dt>Look through</dt>
          <dd>
            {a.sample.map((p) => (
              <div key={p.customer}>
                <button type="button" className="link" onClick={() => onPick(p.customer)}>
                  {p.name}
                </button>{" "}
                <span className="quiet">{p.why}</span>
              </div>
            ))}
          </dd>
        </>
      )}
    </>
  );
}
