// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import { book } from "../../testing/book";
import { mount } from "../../testing/mount";
import { serve } from "../../testing/server";
import { Choices } from "./Choices";
import { aParcel, aRound } from "./testing";
import type { Round, RoundChange } from "./useRound";

beforeEach(() => {
  serve({
    "GET /api/books/1": () => book,
    "GET /api/books/1/choices": () => [],
    "GET /api/books/1/senders": () => [],
    "GET /api/books/1/layouts": () => ({ layouts: [], uses: [] }),
    "GET /api/books/1/wordings": () => ({ wordings: [], uses: [] }),
  });
});

function open(round: Round) {
  const onChange = vi.fn<(change: RoundChange) => void>();
  mount(<Choices round={round} busy={false} onChange={onChange} />, "/books/:book/rounds/:round", "/books/1/rounds/7");
  return { onChange, user: userEvent.setup() };
}

test("a choice names the round that it was made upon, and nothing but what was chosen", async () => {
  const round = aRound([aParcel(1, "Anchor Hotel")]);
  const { onChange, user } = open(round);
  await user.click(screen.getByRole("checkbox", { name: "With items in dispute" }));
  expect(onChange.mock.calls).toEqual([[{ seen: round, change: { leaveOutHeld: true } }]]);
});

test("of a round that was released nothing can be chosen any more", () => {
  const { onChange } = open(aRound([aParcel(1, "Anchor Hotel")], { releasedAt: "2026-11-02T10:00:00Z" }));
  const boxes = screen.getAllByRole("checkbox");
  expect(boxes.length).toBeGreaterThan(1);
  expect(boxes.filter((box) => !(box as HTMLInputElement).disabled)).toEqual([]);
  expect(onChange).not.toHaveBeenCalled();
});
