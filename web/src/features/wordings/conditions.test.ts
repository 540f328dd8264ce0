// @vitest-environment jsdom
import { Editor } from "@tiptap/core";
import StarterKit from "@tiptap/starter-kit";
import { afterEach, expect, test } from "vitest";
import { ConditionMark } from "./ConditionMark";
import { conditionsAt, named, putCondition, sentence, type Condition } from "./conditions";

const label = (slot: string) => slot.replace("column.", "");
const editors: Editor[] = [];
const editorOf = (content: string) => {
  const editor = new Editor({ extensions: [StarterKit, ConditionMark], content });
  editors.push(editor);
  return editor;
};
afterEach(() => editors.splice(0).forEach((editor) => editor.destroy()));
const byRound: Condition = { when: "slot", of: "column.Round", is: "contains", with: "N7" };

const put = (editor: Editor, from: number, to: number, condition: Condition | null) => {
  editor.commands.setTextSelection({ from, to });
  const tr = putCondition(editor.state, condition);
  if (tr) {
    editor.view.dispatch(tr);
  }
  return tr !== null;
};

test("where nothing is chosen, the whole paragraph stands under the condition", () => {
  const editor = editorOf("<p>One two</p><p>Three</p>");
  put(editor, 3, 3, named("overdue"));
  expect(editor.getHTML()).toBe('<p><span data-when="overdue">One two</span></p><p>Three</p>');
});

test("a condition on a part stands in the one around it, and both are read as one sentence", () => {
  const editor = editorOf('<p><span data-when="overdue">One two three</span></p>');
  put(editor, 5, 8, byRound);
  editor.commands.setTextSelection({ from: 5, to: 8 });
  expect(sentence(conditionsAt(editor.state), label)).toBe(
    "where something is past due and where “Round” contains “N7”",
  );
  expect(editor.getHTML()).toBe(
    '<p><span data-when="overdue">One <span data-when="slot" data-of="column.Round" data-is="contains" ' +
      'data-with="N7">two</span> three</span></p>',
  );
});

test("what was stored comes back as it was", () => {
  const stored =
    '<p><span data-when="overdue">a <span data-when="slot" data-of="column.Round, &quot;N&quot;" data-is="is-empty">b</span></span></p>';
  expect(editorOf(stored).getHTML()).toBe(stored);
});

test("the same words under another condition stand under that one alone", () => {
  const editor = editorOf('<p><span data-when="overdue">One</span> two</p>');
  put(editor, 1, 4, named("group"));
  expect(editor.getHTML()).toBe('<p><span data-when="group">One</span> two</p>');
});

test("conditions stand in each other two deep at the most", () => {
  const editor = editorOf('<p><span data-when="overdue">One <span data-when="group">two three</span></span></p>');
  expect(put(editor, 5, 8, byRound)).toBe(false);
  expect(editor.getHTML()).not.toContain("N7");
});

test("bold words do not part a passage", () => {
  const editor = editorOf("<p><strong>One</strong> two</p>");
  put(editor, 1, 1, named("overdue"));
  expect(editor.getHTML()).toBe('<p><span data-when="overdue"><strong>One</strong> two</span></p>');
});

test("always takes the conditions off what is chosen, and off nothing else", () => {
  const editor = editorOf('<p><span data-when="overdue">One two</span></p>');
  put(editor, 5, 8, null);
  expect(editor.getHTML()).toBe('<p><span data-when="overdue">One </span>two</p>');
});

test("what is put can be taken back", () => {
  const editor = editorOf("<p>One</p>");
  put(editor, 1, 1, named("overdue"));
  editor.commands.undo();
  expect(editor.getHTML()).toBe("<p>One</p>");
});

test("what a selection holds in part is not told as its condition", () => {
  const editor = editorOf('<p><span data-when="overdue">One</span> two</p>');
  editor.commands.setTextSelection({ from: 1, to: 8 });
  expect(conditionsAt(editor.state)).toEqual([]);
});

test("conditions are read in words", () => {
  expect(sentence([named("overdue")], label)).toBe("where something is past due");
  expect(sentence([{ ...byRound, is: "is-not-empty" }], label)).toBe("where “Round” is not empty");
  expect(sentence([{ ...byRound, is: "contains-not" }], label)).toBe("where “Round” does not contain “N7”");
});
