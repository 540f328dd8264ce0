import { Button } from "antd";
import type { WorkProgress } from "../../shared/api/work";
import { count, money } from "../../shared/figure";
import { howFar, timeLeft } from "../../shared/WorkBar";
import { useCount, type RoundSettings } from "./useRound";
import roundsStyles from "./rounds.module.css";

/** What is being made up and how far it is: of a choice how many parcels it makes and what they come to, as soon as that is known. */
export function PreparingLine({
  settings,
  progress,
  onStop,
}: {
  settings: RoundSettings | undefined;
  progress: WorkProgress | null;
  onStop: () => void;
}) {
  const coming = useCount(settings).data;
  const left = coming?.leftOut.reduce((sum, l) => sum + l.customers, 0) ?? 0;
  return (
    <span className={`${roundsStyles.coming} quiet`}>
      <span role="status">
        {coming
          ? `Making up ${count(coming.parcels, "parcel")}${coming.sums.map((s) => `, ${money(s.amount, s.currency)}`).join("")}; ${left.toLocaleString("en-GB")} left out…`
          : settings && !(progress && progress.done > 0)
            ? "Choosing…"
            : "Making up the parcels…"}
      </span>
      {progress && progress.done > 0 && (
        <span>
          {" "}
          {howFar(progress)} done{progress.secondsLeft ? `, ${timeLeft(progress.secondsLeft)}` : ""}
        </span>
      )}{" "}
      <Button size="small" onClick={onStop}>
        Stop
      </Button>
    </span>
  );
}
