import { Button, Progress } from "antd";
import type { WorkProgress } from "./api/work";

/** How far a long work has come, how fast it is and how long it takes still, with a way to stop it. */
export function WorkBar({ progress, onStop }: { progress: WorkProgress | null; onStop: () => void }) {
  const share =
    progress && progress.of > 0 ? Math.min(100, Math.floor((100 * progress.rows) / progress.of)) : undefined;
  return (
    <div className="work-bar" role="status" aria-live="polite">
      <strong>{progress ? sentence(progress.stage) : "Opening"}</strong>
      <Progress
        percent={share ?? 100}
        status={share === undefined ? "active" : "normal"}
        showInfo={share !== undefined}
        aria-label="How far it is"
      />
      <span className="quiet">
        {progress && progress.rows > 0
          ? `${progress.rows.toLocaleString("en-GB")}${progress.of > 0 ? ` of ${progress.of.toLocaleString("en-GB")}` : ""} rows` +
            (progress.rowsPerSecond > 0 ? ` · ${progress.rowsPerSecond.toLocaleString("en-GB")} rows a second` : "") +
            (progress.secondsLeft !== null ? ` · ${left(progress.secondsLeft)}` : "")
          : "\u00a0"}
      </span>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

function sentence(stage: string): string {
  return stage.charAt(0).toUpperCase() + stage.slice(1);
}

function left(seconds: number): string {
  return seconds < 90 ? `about ${seconds} s left` : `about ${Math.round(seconds / 60)} min left`;
}
