import { Button, Progress } from "antd";
import type { WorkProgress } from "./api/work";

/** How far a long work has come, how fast it is and how long it takes still, with a way to stop it. */
export function WorkBar({ progress, onStop }: { progress: WorkProgress | null; onStop: () => void }) {
  const share =
    progress && progress.of > 0 ? Math.min(100, Math.floor((100 * progress.done) / progress.of)) : undefined;
  return (
    <div role="status" aria-live="polite">
      <strong>{progress ? sentence(progress.stage) : "Opening"}</strong>
      <Progress
        percent={share ?? 100}
        status={share === undefined ? "active" : "normal"}
        showInfo={share !== undefined}
        aria-label="How far it is"
      />
      <span className="quiet">
        {progress && progress.done > 0
          ? `${howFar(progress)} ${progress.unit}` +
            (progress.perSecond > 0
              ? ` · ${progress.perSecond.toLocaleString("en-GB")} ${progress.unit} a second`
              : "") +
            (progress.secondsLeft !== null ? ` · ${timeLeft(progress.secondsLeft)}` : "")
          : "\u00a0"}
      </span>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

/** How many are done, of how many where that is known. */
export function howFar({ done, of }: WorkProgress): string {
  return `${done.toLocaleString("en-GB")}${of > 0 ? ` of ${of.toLocaleString("en-GB")}` : ""}`;
}

function sentence(stage: string): string {
  return stage.charAt(0).toUpperCase() + stage.slice(1);
}

/** How long it takes still, in a few words. */
export function timeLeft(seconds: number): string {
  return seconds < 90 ? `about ${seconds} s left` : `about ${Math.round(seconds / 60)} min left`;
}
