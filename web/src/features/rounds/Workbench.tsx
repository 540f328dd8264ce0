import { Alert, Button, Drawer, Input, type InputRef } from "antd";
import { useDeferredValue, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { count, day } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { useKeys } from "../../shared/useKeys";
import { Waiting } from "../../shared/Waiting";
import { AccountTable } from "./AccountTable";
import { BenchDialogs, type Opened } from "./BenchDialogs";
import { Choices } from "./Choices";
import { ChangedLine } from "./ChangedLine";
import { LeftMarkedBar } from "./LeftMarkedBar";
import { MarkedBar } from "./MarkedBar";
import { ParcelList } from "./ParcelList";
import { ParcelPane, paneTabs, type PaneTab } from "./ParcelPane";
import { PreparingLine } from "./PreparingLine";
import { ProofRail } from "./ProofRail";
import { countOf } from "./listRows";
import { RemarksLine } from "./RoundRemarks";
import { SendingLine } from "./SendingLine";
import { useHold } from "./useHold";
import { useLeftMarks } from "./useLeftMarks";
import { useMarks } from "./useMarks";
import { useParcelList } from "./useParcelList";
import {
  settingsOf,
  useOthersChanges,
  useRound,
  useRoundActions,
  type Parcel,
  type Round,
  type RoundChange,
} from "./useRound";
import { SourceDialog } from "./SourceDialog";
import { WithReason } from "./WithReason";
import { formWords } from "./words";
import roundsStyles from "./rounds.module.css";
import styles from "./Workbench.module.css";

/** The one place where a round is prepared, looked through, released and watched. */
export function Workbench() {
  const round = useRound();
  return <Waiting query={round}>{(r) => <Bench key={r.id} round={r} />}</Waiting>;
}

function Bench({ round }: { round: Round }) {
  const book = useBookId();
  const { moment } = useClock();
  const actions = useRoundActions();
  const busy = actions.change.isPending || actions.prepare.isPending;
  const { progress, isStopped, stop } = actions.preparing;
  useOthersChanges(round, busy || isStopped, () => actions.prepare.mutate());
  const [parameters, setParameters] = useSearchParams();
  const [find, setFind] = useState("");
  const [tab, setTab] = useState<PaneTab>("message");
  const [leftOpen, setLeftOpen] = useState(false);
  const [opened, setOpened] = useState<Opened>();
  const [puttingIn, setPuttingIn] = useState<{ customers: string[]; name: string }>();
  const [account, setAccount] = useState<string>();
  const [source, setSource] = useState<string>();
  const view = useRef<HTMLDivElement>(null);
  const finder = useRef<InputRef>(null);
  const looked = useDeferredValue(find.trim());
  const list = useParcelList(round, looked, parameters.get("customer"));
  const marks = useMarks(round);
  const leftMarks = useLeftMarks(round);
  const { shown, place, parcelAt } = list;
  const next = place === undefined ? undefined : parcelAt(place + 1);
  const isReleased = round.releasedAt !== null;
  const ready = countOf(round.groups, "prepared");
  const pick = (customer: string) =>
    setParameters(
      (now) => {
        now.set("customer", customer);
        return now;
      },
      { replace: true },
    );
  const step = (by: number) => {
    const to = place === undefined ? undefined : parcelAt(Math.min(list.count - 1, Math.max(0, place + by)));
    if (to) {
      pick(to.customer);
    }
  };
  const turnHold = useHold(round, actions.decide.mutate);
  const hold = (parcel: Parcel | undefined) => {
    if (parcel && !isReleased) {
      pick(parcel.customer);
      turnHold(parcel);
    }
  };
  const choose = (change: RoundChange) => {
    actions.change.mutate(change);
    if (actions.prepare.isPending) {
      // The change makes everything up again, so that nobody need wait for what was begun before it.
      stop();
    }
  };
  const open = (what: Opened) => () => {
    if (mayOpen(what)) {
      setOpened(what);
    }
  };
  const mayOpen = (what: Opened) => {
    switch (what) {
      case "release":
        return ready > 0;
      case "release-this":
        return shown?.status === "prepared" && shown.problem === "";
      case "correct":
        return shown !== undefined;
      case "rehearse":
        return !isReleased && list.count > 0;
      case "recipients":
        return !isReleased && shown !== undefined && shown.recipients.length > 0;
      case "marked-release":
        return marks.count > 0;
      case "marked-hold":
      case "marked-remove":
        return !isReleased && marks.count > 0;
      default:
        return !isReleased && shown !== undefined;
    }
  };
  const stepAndMark = (by: number) => {
    const to = place === undefined ? undefined : Math.min(list.count - 1, Math.max(0, place + by));
    const next = to === undefined ? undefined : parcelAt(to);
    if (shown && to !== undefined) {
      marks.add(next ? [shown, next] : [shown], to);
      step(by);
    }
  };
  useKeys({
    j: () => step(1),
    ArrowDown: () => step(1),
    k: () => step(-1),
    ArrowUp: () => step(-1),
    "Shift+j": () => stepAndMark(1),
    "Shift+ArrowDown": () => stepAndMark(1),
    "Shift+k": () => stepAndMark(-1),
    "Shift+ArrowUp": () => stepAndMark(-1),
    m: () => shown && marks.toggle(shown, place),
    " ": () => shown && marks.toggle(shown, place),
    a: () => (marks.count > 0 ? marks.none() : marks.all(looked)),
    "Shift+h": open("marked-hold"),
    "Shift+x": open("marked-remove"),
    "Shift+r": open("marked-release"),
    t: open("recipients"),
    e: open("rehearse"),
    h: () => hold(shown),
    x: open("remove"),
    c: open("correct"),
    r: open("release"),
    f: () => finder.current?.focus(),
    p: () => view.current?.querySelector<HTMLElement>("[data-mark]")?.focus(),
    "1": () => setTab("message"),
    "2": () => setTab("statement"),
    "3": () => setTab("sources"),
    "4": () => setTab("words"),
  });
  return (
    <div className={styles.bench}>
      <header className={styles.benchHead}>
        <h1>{round.name}</h1>
        <span className="quiet">
          as of {day(round.settings.asOf)} · {formWords[round.settings.form ?? round.bookForm]} · prepared from{" "}
          <Link to={`/books/${book}/ledger/${round.intakeId}`}>{round.file}</Link>
          {round.preparedAt && `, ${moment(round.preparedAt)}`}
        </span>
        <span className="push" />
        {busy && (
          <PreparingLine
            settings={actions.change.isPending ? settingsOf(actions.change.variables) : undefined}
            progress={progress}
            onStop={stop}
          />
        )}
        {!isReleased && round.preparedAt !== null && (
          <Button disabled={!mayOpen("rehearse")} onClick={open("rehearse")}>
            Rehearse… <kbd aria-hidden>E</kbd>
          </Button>
        )}
        {ready > 0 && (
          <Button type="primary" onClick={open("release")}>
            Release {count(ready, "parcel")}… <kbd aria-hidden>R</kbd>
          </Button>
        )}
      </header>
      {round.ledgerDoubt && !isReleased && <Alert className="only-below-8" type="warning" title={round.ledgerDoubt} />}
      {isStopped && !busy && round.isBehind && (
        <Alert
          type="info"
          className={roundsStyles.benchChanged}
          title="Stopped. The list is as it was before, not as it is chosen now."
          action={
            <Button size="small" onClick={() => actions.prepare.mutate()}>
              Make it up
            </Button>
          }
        />
      )}
      {!isReleased && <ChangedLine round={round} place={place} onPick={pick} />}
      {!isReleased && <RemarksLine round={round} onPick={pick} />}
      <ProofRail
        proof={round.proof}
        onWhy={() => {
          setFind("");
          setLeftOpen(true);
        }}
      />
      {isReleased && <SendingLine round={round} />}
      <div className={styles.benchBody}>
        <Choices round={round} busy={actions.change.isPending} onChange={choose} />
        <div className={styles.benchList} aria-busy={busy}>
          {marks.count > 0 && (
            <MarkedBar
              round={round}
              marks={marks}
              onHold={(holds) =>
                holds
                  ? setOpened("marked-hold")
                  : actions.decide.mutate({ seen: round, customers: marks.customers, decision: "let-go", reason: "" })
              }
              onTakeOut={open("marked-remove")}
              onRelease={open("marked-release")}
            />
          )}
          {!isReleased && leftMarks.count > 0 && (
            <LeftMarkedBar
              marks={leftMarks}
              onPutIn={() =>
                setPuttingIn({ customers: leftMarks.toPutIn, name: count(leftMarks.toPutIn.length, "customer") })
              }
              onPutBack={() =>
                actions.decide.mutate(
                  { seen: round, customers: leftMarks.toPutBack, decision: null, reason: "" },
                  { onSuccess: () => leftMarks.unmark(leftMarks.toPutBack) },
                )
              }
            />
          )}
          <ParcelList
            round={round}
            list={list}
            marks={marks}
            leftMarks={leftMarks}
            labels={round.ageLabels}
            leftOpen={leftOpen}
            find={looked}
            finder={
              <Input
                ref={finder}
                size="small"
                className={styles.parcelFind}
                allowClear
                aria-label="Jump to a customer in this round"
                placeholder="Jump to…"
                suffix={<kbd aria-hidden>F</kbd>}
                value={find}
                onChange={(e) => setFind(e.target.value)}
                onPressEnter={(e) => e.currentTarget.blur()}
              />
            }
            onPick={pick}
            onLeftOpen={() => setLeftOpen(!leftOpen)}
            onPutBack={
              isReleased
                ? undefined
                : (customer) =>
                    actions.decide.mutate({ seen: round, customers: [customer], decision: null, reason: "" })
            }
            onPutIn={(customer, name) => setPuttingIn({ customers: [customer], name })}
            onAccount={setAccount}
          />
        </div>
        <div className={styles.pane}>
          <div ref={view} className={styles.paneView} tabIndex={0} role="region" aria-label="The parcel in view">
            {shown ? (
              <ParcelPane
                round={round}
                parcel={shown}
                next={next}
                isCovered={
                  opened !== undefined || puttingIn !== undefined || account !== undefined || source !== undefined
                }
                tab={tab}
                onTab={setTab}
                onWorded={() => actions.prepare.mutate()}
                isReaddressed={opened === "recipients"}
                onRecipients={() => (opened === "recipients" ? setOpened(undefined) : open("recipients")())}
                onHoldNote={open("hold-note")}
                onCard={open("correct")}
                onSource={setSource}
              />
            ) : (
              <p className="quiet">
                {find || list.count > 0 || round.preparedAt === null
                  ? ""
                  : "Nobody is left in this round. The choices at the left or the reasons under “why” say what kept everybody out."}
              </p>
            )}
          </div>
          <footer className={styles.paneKeys}>
            <span>
              <kbd>J</kbd> <kbd>K</kbd> next, back
            </span>
            {!isReleased && (
              <>
                <button type="button" disabled={!shown} onClick={() => hold(shown)}>
                  <kbd>H</kbd> {shown?.status === "held" ? "let it go" : "hold"}
                </button>
                <button type="button" disabled={!shown} onClick={open("remove")}>
                  <kbd>X</kbd> take out
                </button>
              </>
            )}
            <button type="button" disabled={!shown} onClick={open("correct")}>
              <kbd>C</kbd> correct
            </button>
            {!isReleased && (
              <span>
                <kbd>P</kbd> put right
              </span>
            )}
            {!isReleased && (
              <button type="button" disabled={!mayOpen("recipients")} onClick={open("recipients")}>
                <kbd>T</kbd> recipients
              </button>
            )}
            <button type="button" disabled={!shown} onClick={() => shown && marks.toggle(shown, place)}>
              <kbd>M</kbd> {shown && marks.has(shown.id) ? "unmark" : "mark"}
            </button>
            {mayOpen("release-this") && (
              <button type="button" onClick={open("release-this")}>
                release this one…
              </button>
            )}
            <span>
              {paneTabs.map((t, i) => (
                <kbd key={t}>{i + 1}</kbd>
              ))}{" "}
              views
            </span>
            <span className="push" role="status">
              {shown && place !== undefined ? `${place + 1} of ${list.count}` : ""}
            </span>
          </footer>
        </div>
      </div>
      <BenchDialogs
        round={round}
        opened={opened}
        onOpened={setOpened}
        shown={shown}
        after={next ?? (place === undefined ? undefined : parcelAt(place - 1))}
        marks={marks}
        ready={ready}
        actions={actions}
        onPick={pick}
      />
      {source !== undefined && shown && (
        <SourceDialog
          parcel={shown}
          from={source}
          onAccount={() => {
            setSource(undefined);
            setTab("sources");
          }}
          onClose={() => setSource(undefined)}
        />
      )}
      {puttingIn && (
        <WithReason
          title={`Put ${puttingIn.name} into this round?`}
          act="Put in"
          effect={
            puttingIn.customers.length === 1
              ? "A parcel is made up, though the choices at the left leave this customer out."
              : "A parcel is made up for each, though the choices at the left leave them out."
          }
          onClose={() => setPuttingIn(undefined)}
          onDone={(reason) => {
            const { customers } = puttingIn;
            setPuttingIn(undefined);
            actions.decide.mutate(
              { seen: round, customers, decision: "put-in", reason },
              {
                onSuccess: () => {
                  pick(customers[0] ?? "");
                  leftMarks.unmark(customers);
                },
              },
            );
          }}
        />
      )}
      <Drawer
        open={account !== undefined}
        onClose={() => setAccount(undefined)}
        title="Where each item ends"
        size={620}
        destroyOnHidden
      >
        {account !== undefined && <AccountTable round={round} customer={account} />}
      </Drawer>
    </div>
  );
}
