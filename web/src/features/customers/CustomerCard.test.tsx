// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test, vi } from "vitest";
import type { Schemas } from "../../shared/api/client";
import { book } from "../../testing/book";
import { mount } from "../../testing/mount";
import { refuse, serve } from "../../testing/server";
import type { Card } from "./cardText";
import { CustomerCard } from "./CustomerCard";
import { anchor } from "./testing";

const at = "/api/books/1/customers/card";

/** A server with the card, and what it does with one that is saved. */
function withCard(card: () => Card, save: (card: Schemas["CustomerRequest"]) => unknown) {
  return serve({
    "GET /api/books/1": () => book,
    "GET /api/books/1/layouts": () => ({ layouts: [], uses: [] }),
    "GET /api/books/1/wordings": () => ({ wordings: [], uses: [] }),
    "GET /api/books/1/customers/history": () => ({ claims: [], returned: [], returnedAddresses: [], balances: [] }),
    [`GET ${at}`]: card,
    [`PUT ${at}`]: ({ body }) => save(body as Schemas["CustomerRequest"]),
  });
}

const open = async () => {
  const onDone = vi.fn();
  mount(<CustomerCard customer="AN01" onDone={onDone} />, "/books/:book", "/books/1");
  await screen.findByRole("textbox", { name: "Name" });
  return { onDone, user: userEvent.setup() };
};
const retype = async (user: ReturnType<typeof userEvent.setup>, label: string, text: string) => {
  const field = screen.getByRole("textbox", { name: label });
  await user.clear(field);
  await user.type(field, text);
};

test("a card is saved upon the version that was looked at, with all that was not touched", async () => {
  const sent = withCard(
    () => anchor,
    () => ({}),
  );
  const { onDone, user } = await open();
  await retype(user, "E-mail of contact 1", "accounts@anchor.example");
  await user.click(screen.getByRole("button", { name: "Save card" }));
  await waitFor(() => expect(onDone).toHaveBeenCalled());
  const { body } = sent.find((s) => s.method === "PUT") as { body: Schemas["CustomerRequest"] };
  expect(body).toMatchObject({
    version: 4,
    contacts: [{ name: "Kell Aske", address: "accounts@anchor.example" }],
    postalLines: ["1 Quay Street", "Tarnbrook"],
    terms: { days: 14, fromMonthEnd: false },
    minimumBalance: 25,
  });
});

test("where somebody else changed the card meanwhile it is told, both changes stand, and saved again it goes upon theirs", async () => {
  let card = anchor;
  const sent = withCard(
    () => card,
    ({ version }) => {
      if (version === 4) {
        card = { ...anchor, version: 5, unit: "South laundry" };
        return refuse(409, "Hale changed this card at 10:04:31.");
      }
      return {};
    },
  );
  const { onDone, user } = await open();
  await retype(user, "Name", "Anchor Hotel & Spa");
  await user.click(screen.getByRole("button", { name: "Save card" }));
  expect(await screen.findByText("Hale changed this card at 10:04:31.")).toBeDefined();
  await waitFor(() =>
    expect(screen.getByRole("textbox", { name: "Business unit" })).toHaveProperty("value", "South laundry"),
  );
  expect(screen.getByRole("textbox", { name: "Name" })).toHaveProperty("value", "Anchor Hotel & Spa");
  expect(onDone).not.toHaveBeenCalled();
  await user.click(screen.getByRole("button", { name: "Save card" }));
  await waitFor(() => expect(onDone).toHaveBeenCalled());
  expect(sent.filter((s) => s.method === "PUT").at(-1)?.body).toMatchObject({
    version: 5,
    name: "Anchor Hotel & Spa",
    unit: "South laundry",
  });
});

test("a card without a name is not saved, and says why", async () => {
  const sent = withCard(
    () => anchor,
    () => ({}),
  );
  const { user } = await open();
  await user.clear(screen.getByRole("textbox", { name: "Name" }));
  await user.click(screen.getByRole("button", { name: "Save card" }));
  expect(await screen.findByText("A customer needs a name.")).toBeDefined();
  expect(sent.some((s) => s.method === "PUT")).toBe(false);
});

test("an address that is none is said at the top of the card", async () => {
  withCard(
    () => ({ ...anchor, badAddresses: ["kell at anchor"] }),
    () => ({}),
  );
  await open();
  expect(screen.getByText("“kell at anchor” is not an e-mail address.")).toBeDefined();
});
