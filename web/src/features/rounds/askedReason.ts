import { count } from "../../shared/figure";
import type { Opened } from "./BenchDialogs";
import type { Parcel } from "./useRound";

/** What is asked before parcels are held or taken out by hand. */
export interface AskedReason {
  decision: "held" | "removed";
  title: string;
  act: string;
  effect: string;
  /** The note that was given before. */
  first?: string;
  isOptional?: boolean;
  /** The customers that it is about. */
  customers: string[];
  /** Whether they are those that are marked, not the one in view. */
  isOfMarked: boolean;
}

/** What the dialog asks, undefined where it is another dialog, or one about a parcel and none is in view. */
export function askedReason(opened: Opened, shown: Parcel | undefined, marked: string[]): AskedReason | undefined {
  switch (opened) {
    case "marked-hold":
      return {
        decision: "held",
        title: `Hold ${count(marked.length, "parcel")}?`,
        act: "Hold",
        effect: "They stay in the round and are not released until somebody lets them go.",
        isOptional: true,
        customers: marked,
        isOfMarked: true,
      };
    case "marked-remove":
      return {
        decision: "removed",
        title: `Take ${count(marked.length, "parcel")} out of this round?`,
        act: "Take out",
        effect: "They are listed under “left out” with your reason, and their sum stays in the proof.",
        customers: marked,
        isOfMarked: true,
      };
    case "hold-note":
      return (
        shown && {
          decision: "held",
          title: `Hold ${shown.name}`,
          act: "Save note",
          effect: "It stays in the round and is not released until somebody lets it go.",
          first: shown.holdNote,
          isOptional: true,
          customers: [shown.customer],
          isOfMarked: false,
        }
      );
    case "remove":
      return (
        shown && {
          decision: "removed",
          title: `Take ${shown.name} out of this round?`,
          act: "Take out",
          effect: "It is listed under “left out” with your reason, and its sum stays in the proof.",
          customers: [shown.customer],
          isOfMarked: false,
        }
      );
    default:
      return undefined;
  }
}
