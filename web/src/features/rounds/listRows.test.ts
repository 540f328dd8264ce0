import { describe, expect, it } from "vitest";
import { placesIn, rowAt, rowCount, rowOf, type ListShape } from "./listRows";

const shape: ListShape = {
  groups: [
    { status: "needs-you", count: 2 },
    { status: "prepared", count: 3 },
  ],
  leftOut: 2,
  leftOpen: true,
};

const all = (of: ListShape) => Array.from({ length: rowCount(of) }, (_, i) => rowAt(of, i));

describe("the rows of the list", () => {
  it("are the parcels under the heads of their groups, then what is left out", () => {
    expect(all(shape)).toEqual([
      { kind: "group", status: "needs-you", count: 2 },
      { kind: "parcel", place: 0 },
      { kind: "parcel", place: 1 },
      { kind: "group", status: "prepared", count: 3 },
      { kind: "parcel", place: 2 },
      { kind: "parcel", place: 3 },
      { kind: "parcel", place: 4 },
      { kind: "group", status: "left-out", count: 2 },
      { kind: "left", place: 0 },
      { kind: "left", place: 1 },
    ]);
  });

  it("end where the list does", () => {
    expect(rowAt(shape, rowCount(shape))).toBeUndefined();
    expect(rowAt({ groups: [], leftOut: 0, leftOpen: true }, 0)).toBeUndefined();
  });

  it("hide what is left out until it is asked for, and its head where there is none", () => {
    expect(all({ ...shape, leftOpen: false }).at(-1)).toEqual({ kind: "group", status: "left-out", count: 2 });
    expect(all({ ...shape, leftOut: 0 }).at(-1)).toEqual({ kind: "parcel", place: 4 });
  });

  it("are found by the place of their parcel", () => {
    for (let place = 0; place < 5; place++) {
      expect(rowAt(shape, rowOf(shape.groups, place))).toEqual({ kind: "parcel", place });
    }
  });

  it.each([
    [0, 0, [0, -1], [0, -1]],
    [1, 4, [0, 2], [0, -1]],
    [5, 8, [3, 4], [0, 0]],
    [7, 20, [0, -1], [0, 1]],
  ])("from %i to %i hold the places", (first, last, parcels, left) => {
    expect(placesIn(shape, first, last)).toEqual({ parcels, left });
  });
});
