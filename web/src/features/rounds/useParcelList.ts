import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { useBookId } from "../../shared/useBook";
import { usePages } from "../../shared/usePages";
import { parcelCount, type Group } from "./listRows";
import type { LeftOut, Parcel, Round } from "./useRound";
import { leftOutPart, parcelPart, parcelPlace } from "./api";

/** The places of the list that are in sight, each from and to inclusive. */
export interface InSight {
  parcels: [number, number];
  left: [number, number];
}

/** The list of a round: how many parcels stand where, and those of its parcels that are in sight or in view. */
export interface ParcelList {
  groups: Group[];
  count: number;
  /** The parcel in view; undefined where there is none, or it is on the way. */
  shown: Parcel | undefined;
  /** Its place; undefined while it is not known. */
  place: number | undefined;
  parcelAt: (place: number) => Parcel | undefined;
  leftAt: (place: number) => LeftOut | undefined;
  see: (places: InSight) => void;
}

const nothing: [number, number] = [0, -1];

/** The list of a round, or what a text finds in it; in view is the parcel of the wanted customer, else the first. */
export function useParcelList(round: Round, find: string, wanted: string | null): ParcelList {
  const book = useBookId();
  const client = useQueryClient();
  const [sight, setSight] = useState<InSight>({ parcels: nothing, left: nothing });
  // Whatever changed of the round may have moved its parcels.
  useEffect(() => {
    void client.invalidateQueries({ queryKey: ["list", book, round.id] });
  }, [client, book, round]);
  const ask = async (from: number) => parcelPart(book, round.id, from, find);
  const found = useQuery({
    queryKey: ["list", book, round.id, "found", find],
    queryFn: () => ask(0),
    enabled: find !== "",
  });
  const groups = find === "" ? round.groups : (found.data?.groups ?? []);
  const count = parcelCount(groups);
  const first = find === "" ? round.parcels : (found.data?.parcels ?? []);
  const askedFor = useQuery({
    queryKey: ["list", book, round.id, "place", find, wanted],
    queryFn: () => parcelPlace(book, round.id, wanted ?? "", find),
    enabled: wanted !== null && !first.some((p) => p.customer === wanted),
  });
  const asked = wanted === null ? 0 : askedFor.data?.place;
  const guess = asked ?? 0;
  const pages = usePages<Parcel>({
    queryKey: ["list", book, round.id, "parcels", find],
    first,
    size: round.pageSize,
    places: count > 0 ? [sight.parcels, [guess - 1, Math.min(guess + 1, count - 1)]] : [],
    fetch: async (from) => (await ask(from)).parcels,
  });
  const left = usePages<LeftOut>({
    queryKey: ["list", book, round.id, "left"],
    first: round.leftOut,
    size: round.pageSize,
    places: [sight.left],
    fetch: (from) => leftOutPart(book, round.id, from),
  });
  const among = wanted === null ? undefined : pages.placeOf((p) => p.customer === wanted);
  // Of somebody who is not in the list, the first is shown.
  const place = count === 0 ? undefined : (among ?? (asked === null ? 0 : asked));
  return {
    groups,
    count,
    place,
    shown: place === undefined ? undefined : pages.at(place),
    parcelAt: pages.at,
    leftAt: left.at,
    see: setSight,
  };
}
