import { useState } from "react";
import type { Layout, LayoutPart } from "./useLayouts";

/** A layout while it is edited. Each part has a key of its own, so that it stays the same part wherever it moves. */
export interface Draft {
  layout: Layout;
  keys: number[];
}

interface History {
  states: Draft[];
  at: number;
  /** What the last change wrote into: typing on in the same text is one change. */
  typedIn?: string | undefined;
  /** Grows when the draft is put back, so that fields that hold a text of their own take it up again. */
  turn: number;
}

let lastKey = 0;
const newKey = () => ++lastKey;

/** Editing a layout: every change can be taken back and made again. */
export function useDraft(start: Layout) {
  const [history, setHistory] = useState<History>(() => ({
    states: [{ layout: start, keys: start.parts.map(newKey) }],
    at: 0,
    turn: 0,
  }));
  const now = history.states[history.at] as Draft;
  const change = (next: (draft: Draft) => Draft) =>
    setHistory((h) => {
      const was = h.states[h.at] as Draft;
      const draft = next(was);
      const typedIn = textBetween(was, draft);
      const at = typedIn !== undefined && typedIn === h.typedIn ? h.at : h.at + 1;
      return { ...h, states: [...h.states.slice(0, at), draft], at, typedIn };
    });
  const go = (by: number) => setHistory((h) => ({ ...h, at: h.at + by, turn: h.turn + 1, typedIn: undefined }));
  return {
    layout: now.layout,
    keys: now.keys,
    turn: history.turn,
    isChanged: now.layout !== start,
    undo: history.at > 0 ? () => go(-1) : undefined,
    redo: history.at < history.states.length - 1 ? () => go(1) : undefined,
    set: (of: Partial<Layout>) => change((d) => ({ ...d, layout: { ...d.layout, ...of } })),
    /** Puts another layout in its place; that can be taken back too. */
    replace: (layout: Layout) => {
      change(() => ({ layout, keys: layout.parts.map(newKey) }));
      setHistory((h) => ({ ...h, turn: h.turn + 1 }));
    },
    setPart: (at: number, part: LayoutPart) =>
      change((d) => ({ ...d, layout: { ...d.layout, parts: d.layout.parts.map((p, i) => (i === at ? part : p)) } })),
    addPart: (part: LayoutPart) =>
      change((d) => ({ layout: { ...d.layout, parts: [...d.layout.parts, part] }, keys: [...d.keys, newKey()] })),
    removePart: (at: number) =>
      change((d) => ({
        layout: { ...d.layout, parts: d.layout.parts.filter((_, i) => i !== at) },
        keys: d.keys.filter((_, i) => i !== at),
      })),
    movePart: (at: number, by: number) =>
      change((d) => ({ layout: { ...d.layout, parts: moved(d.layout.parts, at, by) }, keys: moved(d.keys, at, by) })),
  };
}

/** The one text that differs between two drafts, by its place; undefined where something else does. */
export function textBetween(was: Draft, now: Draft): string | undefined {
  const sheet = differing(was.layout, now.layout);
  if (sheet.length !== 1 || was.keys !== now.keys) {
    return undefined;
  }
  const [field] = sheet;
  if (field !== "parts") {
    return field && typeof now.layout[field as keyof Layout] === "string" ? field : undefined;
  }
  const at = now.layout.parts.findIndex((part, i) => part !== was.layout.parts[i]);
  const [before, after] = [was.layout.parts[at], now.layout.parts[at]];
  const [only, ...more] = before && after ? differing(before, after) : [];
  return only && more.length === 0 && typeof (after as Record<string, unknown>)[only] === "string"
    ? `${now.keys[at]} ${only}`
    : undefined;
}

function differing(a: object, b: object): string[] {
  const [before, after] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return Object.keys(after).filter((key) => after[key] !== before[key]);
}

export type DraftActions = ReturnType<typeof useDraft>;

/** A list in which one entry has moved by so many places. */
export function moved<T>(list: readonly T[], at: number, by: number): T[] {
  const rest = list.filter((_, i) => i !== at);
  const entry = list[at];
  return entry === undefined || at + by < 0 || at + by >= list.length
    ? [...list]
    : [...rest.slice(0, at + by), entry, ...rest.slice(at + by)];
}
