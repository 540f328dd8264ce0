import type { Mark } from "@tiptap/pm/model";
import type { EditorState, Transaction } from "@tiptap/pm/state";
import { whenWords } from "../../shared/whenWords";

/** Under what words stand: a name, or `slot` with a slot, a comparison and what it is compared with. */
export interface Condition {
  when: string;
  of: string;
  is: string;
  with: string;
}

/** Conditions stand in each other so deep at the most, so that a person can still read them. */
export const deepest = 2;

/** What can be asked of a value, in words that stand after its label. */
export const comparisonWords: Record<string, string> = {
  is: "is",
  "is-not": "is not",
  contains: "contains",
  "contains-not": "does not contain",
  "is-empty": "is empty",
  "is-not-empty": "is not empty",
};

/** Whether a comparison wants a text. */
export const wantsText = (is: string) => !is.endsWith("empty");

/** A named condition. */
export const named = (when: string): Condition => ({ when, of: "", is: "", with: "" });

/** A condition in words: where something is past due; where “Delivery round” contains “N7”. */
export function conditionWords(condition: Condition, label: (slot: string) => string) {
  if (condition.when !== "slot") {
    return whenWords[condition.when] ?? condition.when;
  }
  const asked = `where “${label(condition.of)}” ${comparisonWords[condition.is] ?? condition.is}`;
  return wantsText(condition.is) ? `${asked} “${condition.with}”` : asked;
}

/** Several in one another as one sentence. */
export const sentence = (conditions: Condition[], label: (slot: string) => string) =>
  conditions.map((c) => conditionWords(c, label)).join(" and ");

const isCondition = (mark: Mark) => mark.type.name === "condition";

/** What is chosen; where nothing is, the whole paragraph. */
function chosen(state: EditorState) {
  const { from, to, empty, $from } = state.selection;
  return empty ? { from: $from.start(), to: $from.end() } : { from, to };
}

/** The conditions that all of what is chosen stands under, the outermost first. */
export function conditionsAt(state: EditorState): Condition[] {
  const { from, to } = chosen(state);
  const sets: (readonly Mark[])[] = [];
  state.doc.nodesBetween(from, to, (node) => {
    if (node.isInline) {
      sets.push(node.marks);
    }
  });
  return (sets[0] ?? [])
    .filter((mark) => isCondition(mark) && sets.every((set) => mark.isInSet(set)))
    .map((mark) => mark.attrs as Condition);
}

/** How far a mark reaches from where it is found, within its paragraph. */
function reach(state: EditorState, mark: Mark, at: number) {
  const $at = state.doc.resolve(at);
  let [from, to] = [at, at];
  $at.parent.forEach((node, offset) => {
    const start = $at.start() + offset;
    if (mark.isInSet(node.marks) && start <= to && start + node.nodeSize >= from) {
      from = Math.min(from, start);
      to = Math.max(to, start + node.nodeSize);
    }
  });
  return { from, to };
}

/**
 * Puts what is chosen under a condition; none takes them off. One that reaches further than what is chosen stays, and the new one stands
 * in it; one that does not is replaced. Null where that would be too deep.
 */
export function putCondition(state: EditorState, condition: Condition | null): Transaction | null {
  const { from, to } = chosen(state);
  const type = state.schema.marks.condition;
  if (!type) {
    return null;
  }
  const tr = state.tr;
  const outer = new Set<Mark>();
  state.doc.nodesBetween(from, to, (node, pos) => {
    for (const mark of node.isInline ? node.marks.filter(isCondition) : []) {
      const whole = reach(state, mark, pos);
      if (condition && (whole.from < from || whole.to > to)) {
        outer.add(mark);
      } else {
        tr.removeMark(from, to, mark);
      }
    }
  });
  if (outer.size >= deepest) {
    return null;
  }
  return condition ? tr.addMark(from, to, type.create(condition)) : tr;
}
