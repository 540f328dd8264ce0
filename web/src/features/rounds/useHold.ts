import { useRef } from "react";
import type { Parcel, Round, useRoundActions } from "./useRound";

type Decide = ReturnType<typeof useRoundActions>["decide"]["mutate"];

/**
 * Holds a parcel, or lets go of one that is held. Decisions are carried out one after the other; until the last of them is, what was
 * pressed counts and not what is shown.
 */
export function useHold(round: Round, decide: Decide) {
  const pressed = useRef(new Map<string, boolean>());
  return ({ customer, status }: Parcel) => {
    const holds = !(pressed.current.get(customer) ?? status === "held");
    pressed.current.set(customer, holds);
    decide(
      { seen: round, customers: [customer], decision: holds ? "held" : null, reason: "" },
      { onSettled: () => pressed.current.clear() },
    );
  };
}
