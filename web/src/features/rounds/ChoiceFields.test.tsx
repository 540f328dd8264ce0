// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test, vi } from "vitest";
import { NumberChoice } from "./ChoiceFields";

const least = (value: number | null, onDone: (value: number | null) => void, disabled = false) => (
  <NumberChoice label="Balance over" value={value} min={0} precision={2} disabled={disabled} onDone={onDone} />
);
const field = () => screen.getByRole("spinbutton", { name: "Balance over" });

test("Enter carries a choice out once, though the field then loses the focus", async () => {
  const onDone = vi.fn();
  const { rerender } = render(least(null, onDone));
  const user = userEvent.setup();
  await user.type(field(), "100{Enter}");
  rerender(least(null, onDone, true));
  await user.tab();
  expect(onDone.mock.calls).toEqual([[100]]);
});

test("what is being typed stays while others change the round", async () => {
  const { rerender } = render(least(50, vi.fn()));
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), "120");
  rerender(least(75, vi.fn()));
  expect(field()).toHaveProperty("value", "120");
});

test("a field that nobody types in shows what others chose", () => {
  const { rerender } = render(least(50, vi.fn()));
  rerender(least(75, vi.fn()));
  expect(field()).toHaveProperty("value", "75.00");
});

test("a choice that was refused shows what holds", async () => {
  const { rerender } = render(least(50, vi.fn()));
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), "9{Enter}");
  rerender(least(50, vi.fn(), true));
  rerender(least(50, vi.fn()));
  expect(field()).toHaveProperty("value", "50.00");
});

test("a decimal comma is read as it is meant", async () => {
  const onDone = vi.fn();
  render(least(null, onDone));
  const user = userEvent.setup();
  await user.type(field(), "1.250,50{Enter}");
  expect(onDone.mock.calls).toEqual([[1250.5]]);
});
