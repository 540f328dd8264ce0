import { Extension, generateJSON } from "@tiptap/react";
import { Plugin } from "@tiptap/pm/state";
import { Decoration, DecorationSet } from "@tiptap/pm/view";
import { diffArrays } from "diff";
import { extensionsOf, type TextKind } from "./textExtensions";

/** The blocks of two texts that the other has not, by their places. */
export function changedBlocks(then: string[], now: string[]): { then: Set<number>; now: Set<number> } {
  const changed = { then: new Set<number>(), now: new Set<number>() };
  let [atThen, atNow] = [0, 0];
  for (const piece of diffArrays(then, now)) {
    for (let i = 0; i < piece.count; i++) {
      if (piece.removed) {
        changed.then.add(atThen);
      } else if (piece.added) {
        changed.now.add(atNow);
      }
      atThen += piece.added ? 0 : 1;
      atNow += piece.removed ? 0 : 1;
    }
  }
  return changed;
}

/** The blocks of a text, as the editor has them: the same words under the same conditions are one text, however they were written. */
export function blocksOf(html: string, kind: TextKind): string[] {
  const { content } = generateJSON(html, extensionsOf(kind, [])) as { content?: unknown[] };
  return (content ?? []).map((block) => JSON.stringify(block));
}

/** Marks blocks of a text, by their places. */
export const markBlocks = (places: Set<number>, className: string) =>
  Extension.create({
    name: "changedBlocks",
    addProseMirrorPlugins: () => [
      new Plugin({
        props: {
          decorations: (state) => {
            const marks: Decoration[] = [];
            state.doc.forEach((block, offset, place) => {
              if (places.has(place)) {
                marks.push(Decoration.node(offset, offset + block.nodeSize, { class: className }));
              }
            });
            return DecorationSet.create(state.doc, marks);
          },
        },
      }),
    ],
  });
