import { count, money } from "../../shared/figure";
import { useCount, type RoundSettings } from "./useRound";

/** How many parcels a choice makes and what they come to, for as long as they are being made up. */
export function ComingCount({ settings }: { settings: RoundSettings }) {
  const coming = useCount(settings).data;
  const left = coming?.leftOut.reduce((sum, l) => sum + l.customers, 0) ?? 0;
  return (
    <span className="quiet coming" role="status">
      {coming
        ? `Making up ${count(coming.parcels, "parcel")}${coming.sums.map((s) => `, ${money(s.amount, s.currency)}`).join("")}; ${left.toLocaleString("en-GB")} left out…`
        : "Choosing…"}
    </span>
  );
}
