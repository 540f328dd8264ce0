// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import { blocksOf, changedBlocks } from "./changedBlocks";

const changes = (then: string, now: string, kind: "message" | "subject" = "message") => {
  const changed = changedBlocks(blocksOf(then, kind), blocksOf(now, kind));
  return { then: [...changed.then], now: [...changed.now] };
};

describe("what differs between two versions of a text", () => {
  it("is the blocks that the other has not", () => {
    const then = "<p>Dear friends,</p><p>Please pay.</p><p>Kind regards</p>";
    const now = "<p>Dear friends,</p><hr><p>Please pay today.</p><p>Kind regards</p>";
    expect(changes(then, now)).toEqual({ then: [1], now: [1, 2] });
    expect(changes(then, then)).toEqual({ then: [], now: [] });
  });

  it("is a line as a whole, whatever slots stand in it", () => {
    const line = 'Statement of <span data-slot="customer.name"></span>';
    expect(changes(line, `${line} again`, "subject")).toEqual({ then: [0], now: [0] });
  });

  it("is a slot or a condition alone, too", () => {
    const p = (when: string) =>
      `<p><span data-when="${when}">Please pay</span> <span data-slot="statement.date"></span></p>`;
    expect(changes(`<p>Hello</p>${p("overdue")}`, `<p>Hello</p>${p("not-overdue")}`)).toEqual({ then: [1], now: [1] });
  });

  it("is nothing where the same is only written otherwise", () => {
    const then = '<p data-when="overdue">Please pay <b>now</b>.</p>';
    const now =
      '<p><span data-when="overdue">Please pay </span><span data-when="overdue"><strong>now</strong>.</span></p>';
    expect(changes(then, then.replace("<b>now</b>", "<strong>now</strong>"))).toEqual({ then: [], now: [] });
    expect(changes(now, now.replace("Please pay", "Please   pay"))).toEqual({ then: [], now: [] });
  });
});
