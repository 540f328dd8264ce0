// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test, vi } from "vitest";
import { book } from "../../testing/book";
import { mount } from "../../testing/mount";
import { refuse, serve } from "../../testing/server";
import { aParcel, aRound } from "./testing";
import type { Round } from "./useRound";
import { Workbench } from "./Workbench";

// Drawing a PDF needs a browser.
vi.mock("./StatementPages", () => ({ StatementPages: () => null }));

const route = "/books/:book/rounds/:round";
const address = "/books/1/rounds/7";
const customers = [aParcel(1, "Anchor Hotel"), aParcel(2, "Beacon Lodge"), aParcel(3, "Crown Inn")];

interface Decision {
  customers: string[];
  decision: string | null;
}

/** A server with a round of three parcels, which holds and lets go as it is told. */
function withRound(answer?: (decision: Decision) => unknown) {
  let round: Round = aRound(customers);
  const sent = serve({
    "GET /api/books/1": () => book,
    "GET /api/books/1/rounds/7": () => round,
    "GET /api/books/1/rounds/7/revision": () => ({ isOther: false, isBehind: false }),
    "GET /api/books/1/rounds/7/parcels/keys": ({ query }) =>
      round.parcels
        .slice(Number(query.get("from") ?? 0))
        .slice(0, Number(query.get("most") ?? round.parcels.length))
        .map(({ id, customer }) => ({ id, customer })),
    "POST /api/books/1/rounds/7/parcels/marked": ({ body }) => {
      const { parcels } = body as { parcels: number[] };
      return {
        parcels: parcels.length,
        ready: parcels.length,
        held: 0,
        totals: [{ currency: "GBP", amount: `${parcels.length}00.00` }],
      };
    },
    "POST /api/books/1/rounds/7/decisions": async ({ body }) => {
      const decision = body as Decision;
      await new Promise((resolve) => setTimeout(resolve, 20));
      const refused = answer?.(decision);
      if (refused) {
        return refused;
      }
      const parcels = round.parcels.map((p) =>
        decision.customers.includes(p.customer) ? { ...p, status: decision.decision ?? "prepared" } : p,
      );
      round = aRound(parcels, { revision: round.revision + 1 });
      return {};
    },
  });
  const decisions = () => sent.filter((s) => s.path.endsWith("/decisions")).map((s) => s.body as Decision);
  return { decisions };
}

const open = async () => {
  mount(<Workbench />, route, address);
  await screen.findByRole("row", { name: /Crown Inn/ });
  return userEvent.setup();
};

test("H pressed again while the first is under way is a second decision, and none is dropped", async () => {
  const { decisions } = withRound();
  const user = await open();
  await user.keyboard("hhh");
  await waitFor(() => expect(decisions()).toHaveLength(3));
  expect(decisions().map((d) => [d.customers[0], d.decision])).toEqual([
    ["C1", "held"],
    ["C1", null],
    ["C1", "held"],
  ]);
});

test("each of three customers is held when one steps on faster than the server answers", async () => {
  const { decisions } = withRound();
  const user = await open();
  await user.keyboard("hjhjh");
  await waitFor(() => expect(decisions()).toHaveLength(3));
  expect(decisions().map((d) => [d.customers[0], d.decision])).toEqual([
    ["C1", "held"],
    ["C2", "held"],
    ["C3", "held"],
  ]);
});

test("a decision that is refused is told in the server's words, and the next one is carried out", async () => {
  const { decisions } = withRound((d) =>
    d.customers[0] === "C1" ? refuse(409, "Kell decided at 10:04:31.") : undefined,
  );
  const user = await open();
  await user.keyboard("hjh");
  expect(await screen.findByText("Kell decided at 10:04:31.")).toBeDefined();
  await waitFor(() => expect(decisions().map((d) => d.customers[0])).toEqual(["C1", "C2"]));
});

test("a letter that is typed into a field, or while a dialog is open, decides nothing", async () => {
  const { decisions } = withRound();
  const user = await open();
  const field = screen.getByRole("textbox", { name: "Jump to a customer in this round" });
  await user.type(field, "hx");
  expect(screen.queryByRole("dialog")).toBeNull();
  await user.clear(field);
  await user.click(await screen.findByRole("row", { name: /Anchor Hotel/ }));
  await user.keyboard("x");
  expect(await screen.findByText("Take Anchor Hotel out of this round?")).toBeDefined();
  await user.keyboard("h");
  expect(decisions()).toEqual([]);
});

test("nobody is taken out of a round without a reason", async () => {
  const { decisions } = withRound();
  const user = await open();
  await user.keyboard("x");
  expect(await screen.findByRole("button", { name: "Take out" })).toHaveProperty("disabled", true);
  await user.type(screen.getByRole("textbox", { name: "Reason" }), " paid by hand {Enter}");
  await waitFor(() => expect(decisions()).toHaveLength(1));
  expect(decisions()[0]).toMatchObject({ customers: ["C1"], decision: "removed", reason: "paid by hand" });
});

test("Space, M and Shift mark parcels, and what is pressed then is done to all of them at once", async () => {
  const { decisions } = withRound();
  const user = await open();
  await user.keyboard("m");
  expect(await screen.findByText("1 marked")).toBeDefined();
  await user.keyboard("{Shift>}j{/Shift}");
  expect(await screen.findByText("2 marked")).toBeDefined();
  expect(await screen.findByText(/£200.00/)).toBeDefined();
  expect(screen.getByRole("checkbox", { name: "Mark Beacon Lodge" })).toHaveProperty("checked", true);
  await user.keyboard("{Shift>}h{/Shift}");
  await user.type(await screen.findByRole("textbox", { name: "Note" }), "ask first{Enter}");
  await waitFor(() => expect(decisions()).toHaveLength(1));
  expect(decisions()[0]).toMatchObject({ customers: ["C1", "C2"], decision: "held", reason: "ask first" });
});

test("all are marked by one key, none by the same, and a stretch by a click with Shift", async () => {
  withRound();
  const user = await open();
  await user.keyboard("a");
  expect(await screen.findByText("3 marked")).toBeDefined();
  await user.keyboard("a");
  expect(screen.queryByText(/marked$/)).toBeNull();
  await user.click(screen.getByRole("checkbox", { name: "Mark Anchor Hotel" }));
  await user.keyboard("{Shift>}");
  await user.click(screen.getByRole("checkbox", { name: "Mark Crown Inn" }));
  await user.keyboard("{/Shift}");
  expect(await screen.findByText("3 marked")).toBeDefined();
});
