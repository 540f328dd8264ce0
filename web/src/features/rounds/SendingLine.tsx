import { useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import type { Round } from "./useRound";

const waiting = ["released", "sending", "to-be-retried"];

/** How sending goes, told by the server as it goes; closing the page changes nothing. */
export function SendingLine({ round }: { round: Round }) {
  const book = useBookId();
  const client = useQueryClient();
  const [progress, setProgress] = useState<Schemas["ProgressView"]>();
  const [pace, setPace] = useState("");
  const first = useRef<{ at: number; done: number }>(undefined);
  useEffect(() => {
    const events = new EventSource(`/api/books/${book}/rounds/${round.id}/progress`);
    events.addEventListener("progress", (event: MessageEvent<string>) => {
      const now = JSON.parse(event.data) as Schemas["ProgressView"];
      setProgress(now);
      const done = now.counts["sent"] ?? 0;
      const left = waiting.reduce((sum, s) => sum + (now.counts[s] ?? 0), 0);
      first.current ??= { at: Date.now(), done };
      setPace(paceOf(done - first.current.done, Date.now() - first.current.at, left));
      void client.invalidateQueries({ queryKey: ["round", book, round.id] });
    });
    return () => events.close();
  }, [book, round.id, client]);
  if (!progress) {
    return null;
  }
  const of = (...standings: string[]) => standings.reduce((sum, s) => sum + (progress.counts[s] ?? 0), 0);
  const left = of(...waiting);
  const failed = of("refused", "returned");
  const pause = async (paused: boolean) => {
    await must(
      api.POST("/api/books/{book}/rounds/{id}/pause", { params: { path: { book, id: round.id } }, body: { paused } }),
    );
    await client.invalidateQueries({ queryKey: ["round", book, round.id] });
  };
  const all = of("sent") + left + failed + of("unsure");
  return (
    <div className="sending" role="status">
      <strong>
        {of("sent")} of {all} sent
      </strong>
      {left > 0 && <span>{left} left</span>}
      {failed > 0 && <span>{failed} refused</span>}
      {of("unsure") > 0 && <span>{of("unsure")} unsure</span>}
      {left > 0 && !progress.paused && <span className="quiet">{pace}</span>}
      {progress.senderPaused && (
        <span className="sending-stopped">
          The sender is stopped: {progress.senderPaused} <Link to={`/books/${book}/words?part=sender`}>See to it</Link>
        </span>
      )}
      {left > 0 && (
        <Button size="small" onClick={() => void pause(!progress.paused)}>
          {progress.paused ? "Go on" : "Pause"}
        </Button>
      )}
    </div>
  );
}

/** "12 a second, about 40 s left"; empty until there is something to tell by. */
function paceOf(done: number, milliseconds: number, left: number): string {
  if (done < 3 || milliseconds < 1000) {
    return "";
  }
  const aSecond = (1000 * done) / milliseconds;
  const seconds = Math.ceil(left / aSecond);
  const still = seconds < 90 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`;
  return `${aSecond >= 1 ? `${Math.round(aSecond)} a second` : `${Math.round(60 * aSecond)} a minute`}, about ${still} left`;
}
