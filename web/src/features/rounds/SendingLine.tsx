import { useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { count, day } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { RestRound } from "./RestRound";
import type { Round } from "./useRound";
import { stillTakes } from "./words";
import { served } from "../../shared/served";
import roundsStyles from "./rounds.module.css";
import styles from "./SendingLine.module.css";
import { exportedWent, pauseRound, stopRound } from "./api";

type Progress = Schemas["ProgressView"];

const waiting = ["released", "sending", "to-be-retried"];

/** How sending goes, told by the server as it goes; closing the page changes nothing. */
export function SendingLine({ round }: { round: Round }) {
  const book = useBookId();
  const { moment } = useClock();
  const client = useQueryClient();
  const { modal, message } = App.useApp();
  const [progress, setProgress] = useState<Progress>();
  useEffect(() => {
    let events: EventSource;
    let again: number | undefined;
    const listen = () => {
      events = new EventSource(served(`/api/books/${book}/rounds/${round.id}/progress`));
      events.addEventListener("progress", (event: MessageEvent<string>) => {
        setProgress(JSON.parse(event.data) as Progress);
        void client.invalidateQueries({ queryKey: ["round", book, round.id] });
      });
      events.addEventListener("error", () => {
        // Where the answer was an error, the browser does not ask again by itself.
        if (events.readyState === EventSource.CLOSED) {
          again = window.setTimeout(listen, 2_000);
        }
      });
    };
    listen();
    return () => {
      window.clearTimeout(again);
      events.close();
    };
  }, [book, round.id, client]);
  if (!progress) {
    return null;
  }
  const of = (...statuses: string[]) => statuses.reduce((sum, s) => sum + (progress.counts[s] ?? 0), 0);
  const left = of(...waiting);
  const again = () => client.invalidateQueries({ queryKey: ["round", book, round.id] });
  const pause = async (paused: boolean) => {
    await pauseRound(book, round.id, { paused });
    await again();
  };
  const went = async () => {
    const sent = await exportedWent(book, round.id);
    await again();
    message.success(`${count(sent.parcels, "parcel")} counted as sent.`);
  };
  const stop = () =>
    modal.confirm({
      title: `Stop the ${count(left, "message")} that ${left === 1 ? "has" : "have"} not gone?`,
      content: "They can be looked through and released again. What has gone stays gone.",
      okText: "Stop sending",
      cancelText: "Cancel",
      onOk: async () => {
        const stopped = await stopRound(book, round.id);
        await again();
        message.success(
          `${count(stopped.parcels, "parcel")} stopped.${stopped.isTakenBack ? " Nothing had left: the round can be changed and released again." : ""}`,
        );
      },
    });
  const all = of("sent", "refused", "returned", "unsure", "exported", "printed") + left;
  return (
    <div className={roundsStyles.sending} role="status">
      <strong>
        {of("sent", "printed")} of {all} {of("printed") > 0 ? "done" : "sent"}
      </strong>
      {left > 0 && <span>{left} left</span>}
      {of("refused") > 0 && <span>{of("refused")} refused</span>}
      {of("returned") > 0 && <span>{of("returned")} returned</span>}
      {of("exported") > 0 && (
        <span>
          {of("exported")} exported:{" "}
          <a href={served(`/api/books/${book}/rounds/${round.id}/messages.zip`)}>ZIP of .eml</a>,{" "}
          <a href={served(`/api/books/${book}/rounds/${round.id}/messages.mbox`)}>mbox</a>{" "}
          <Button size="small" onClick={() => void went()}>
            Mark as sent
          </Button>
        </span>
      )}
      {progress.letters > 0 && (
        <span>
          {count(progress.letters, "letter")} for the post, to be printed on{" "}
          <a href={served(`/api/books/${book}/rounds/${round.id}/post.pdf`)}>one side</a> or{" "}
          <a href={served(`/api/books/${book}/rounds/${round.id}/post.pdf?bothSides=true`)}>both sides</a>
        </span>
      )}
      {of("unsure") > 0 && <span>{of("unsure")} unsure</span>}
      {left > 0 && !progress.paused && <span className="quiet">{paceOf(progress, left, moment)}</span>}
      {progress.senderPaused && (
        <span className={styles.sendingStopped}>
          The sender is stopped: {progress.senderPaused}{" "}
          <Link to={`/books/${book}/words?part=sender`}>Open sender</Link>
        </span>
      )}
      {progress.serverUnreachable && (
        <span className={styles.sendingStopped}>
          Its server cannot be reached since {moment(progress.serverUnreachable.since)} (
          {progress.serverUnreachable.words}); it is asked again at {moment(progress.serverUnreachable.until)}.
        </span>
      )}
      {left > 0 && (
        <>
          <Button size="small" onClick={() => void pause(!progress.paused)}>
            {progress.paused ? "Resume" : "Pause"}
          </Button>
          <Button size="small" onClick={stop}>
            Stop the rest
          </Button>
        </>
      )}
      {left === 0 && round.rest > 0 && <RestRound round={round} />}
    </div>
  );
}

/** "12 a minute, about 4 min left; 120 go until 2 November"; empty until there is something to tell by. */
function paceOf({ aMinute, forecast, leavesAt }: Progress, left: number, moment: (iso: string) => string): string {
  if (leavesAt !== null && aMinute === 0) {
    return `the next ${left === 1 ? "one leaves" : "leave"} at ${moment(leavesAt)}`;
  }
  const today = aMinute >= 3 ? `${aMinute} a minute, ${stillTakes((60 * forecast.today) / aMinute)} left` : "";
  const later = forecast.later > 0 ? `${forecast.later} go by ${day(forecast.lastDay)}, as the allowance has it` : "";
  return [today, later].filter(Boolean).join("; ");
}
