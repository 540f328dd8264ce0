import { describe, expect, it } from "vitest";
import { pagesOf } from "./pages";

describe("the pages of some places", () => {
  it.each([
    [[[0, 0]], [0]],
    [[[0, 199]], [0]],
    [[[199, 200]], [0, 1]],
    [[[-1, 1]], [0]],
    [[[5, 4]], [0]],
    [[[400, -1]], []],
    [
      [
        [950, 1010],
        [3, 4],
      ],
      [0, 4, 5],
    ],
  ] as [[number, number][], number[]][])("are, of %j, %j", (places, pages) => {
    expect(pagesOf(places, 200)).toEqual(pages);
  });
});
