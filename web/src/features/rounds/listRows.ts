import type { Schemas } from "../../shared/api/client";

export type Group = Schemas["ParcelGroup"];

/** What the list of a round consists of: parcels in groups by status, then what is left out. */
export interface ListShape {
  groups: Group[];
  leftOut: number;
  leftOpen: boolean;
}

/** A row of the list: the head of a group, or the parcel or line of what is left out at a place. */
export type Row =
  | { kind: "group"; status: string; count: number }
  | { kind: "parcel"; place: number }
  | { kind: "left"; place: number };

/** How many parcels there are. */
export const parcelCount = (groups: Group[]) => groups.reduce((sum, g) => sum + g.count, 0);

/** How many stand in one place. */
export const countOf = (groups: Group[], status: string) => groups.find((g) => g.status === status)?.count ?? 0;

/** How many rows the list has. */
export function rowCount({ groups, leftOut, leftOpen }: ListShape): number {
  return parcelCount(groups) + groups.length + (leftOut > 0 ? 1 : 0) + (leftOpen ? leftOut : 0);
}

/** What stands in a row; undefined past the last. */
export function rowAt({ groups, leftOut, leftOpen }: ListShape, index: number): Row | undefined {
  let row = index;
  let place = 0;
  for (const { status, count } of groups) {
    if (row === 0) {
      return { kind: "group", status, count };
    }
    if (row <= count) {
      return { kind: "parcel", place: place + row - 1 };
    }
    row -= count + 1;
    place += count;
  }
  if (leftOut === 0 || row < 0) {
    return undefined;
  }
  if (row === 0) {
    return { kind: "group", status: "left-out", count: leftOut };
  }
  return leftOpen && row <= leftOut ? { kind: "left", place: row - 1 } : undefined;
}

/** The row of the parcel at a place. */
export function rowOf(groups: Group[], place: number): number {
  let row = place;
  let passed = 0;
  for (const { count } of groups) {
    row++;
    passed += count;
    if (place < passed) {
      break;
    }
  }
  return row;
}

/** From which to which place the parcels, and the lines of what is left out, of some rows are; from 0 to -1 for none. */
export function placesIn(shape: ListShape, first: number, last: number) {
  const places = { parcels: [0, -1] as [number, number], left: [0, -1] as [number, number] };
  for (let index = first; index <= last; index++) {
    const row = rowAt(shape, index);
    if (row && row.kind !== "group") {
      const within = row.kind === "parcel" ? places.parcels : places.left;
      if (within[1] < 0) {
        within[0] = row.place;
      }
      within[1] = row.place;
    }
  }
  return places;
}
