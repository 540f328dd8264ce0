import { describe, expect, it } from "vitest";
import { inOrder } from "./ParcelList";
import type { Parcel } from "./useRound";
import { groupWords, reasonWords, standingOrder } from "./words";

const parcel = (customer: string, name: string, standing: string): Parcel => ({
  id: 1,
  customer,
  name,
  accounts: [{ key: customer, name }],
  standing,
  problem: "",
  recipients: [],
  sums: [],
  items: 1,
  answer: "",
  reminderLevel: null,
  onPaper: false,
  canBeRetried: false,
});

describe("the order of the parcels", () => {
  const parcels = [
    parcel("AB01", "Abbot’s Table", "prepared"),
    parcel("BE02", "Beacon Lodge", "held"),
    parcel("CA01", "Carrow House", "needs-you"),
    parcel("DU04", "Dunmore Clinic", "prepared"),
    parcel("EA01", "East Quay", "unsure"),
  ];

  it("puts first what needs a person, and keeps the order within a standing", () => {
    expect(inOrder(parcels, "").map((p) => p.customer)).toEqual(["CA01", "EA01", "AB01", "DU04", "BE02"]);
  });

  it.each([
    ["beacon", ["BE02"]],
    ["  CLINIC ", ["DU04"]],
    ["ea01", ["EA01"]],
    ["nobody", []],
  ])("finds %s by code or name", (find, found) => {
    expect(inOrder(parcels, find).map((p) => p.customer)).toEqual(found);
  });

  it("leaves the list it was given as it was", () => {
    const before = parcels.map((p) => p.customer);
    inOrder(parcels, "");
    expect(parcels.map((p) => p.customer)).toEqual(before);
  });
});

describe("the words", () => {
  it("name every group in the order", () => {
    expect(standingOrder.filter((s) => !groupWords[s])).toEqual([]);
  });

  it("say a reason without the jargon of its code", () => {
    expect(Object.values(reasonWords).filter((words) => words.includes("-") || words !== words.trim())).toEqual([]);
  });
});
