import { describe, expect, it } from "vitest";
import { askedReason } from "./askedReason";
import type { Parcel } from "./useRound";

const abbot = { customer: "AB01", name: "Abbot’s Table", holdNote: "until Kell is back" } as Parcel;

describe("what is asked before parcels are held or taken out", () => {
  it("begins with the note that a parcel is held with", () => {
    expect(askedReason("hold-note", abbot, [])).toMatchObject({ first: "until Kell is back", isOptional: true });
  });

  it("demands a reason for what is taken out, and none for what is held", () => {
    for (const opened of ["remove", "marked-remove"] as const) {
      expect(askedReason(opened, abbot, ["AB01", "KE02"])?.isOptional).toBeUndefined();
    }
    expect(askedReason("marked-hold", abbot, ["AB01", "KE02"])?.isOptional).toBe(true);
  });

  it("is about those that are marked, or the one in view alone", () => {
    expect(askedReason("marked-remove", abbot, ["CA03", "KE02"])).toMatchObject({ customers: ["CA03", "KE02"] });
    expect(askedReason("marked-remove", abbot, ["CA03", "KE02"])?.title).toContain("2 parcels");
    expect(askedReason("remove", abbot, ["CA03", "KE02"])).toMatchObject({ customers: ["AB01"] });
  });

  it("asks nothing about a parcel where none is in view", () => {
    expect(askedReason("remove", undefined, [])).toBeUndefined();
  });
});
