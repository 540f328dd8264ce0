import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { lookedAtRehearsal, rehearsalsOf, rehearse } from "./api";
import type { Round } from "./useRound";

export type Rehearsal = Schemas["RehearsalRecord"];

const onItsWay = ["released", "sending", "to-be-retried"];

/** What can be rehearsed of a round, and what was; brought anew while messages are on their way. */
export function useRehearsals(round: Round) {
  const book = useBookId();
  return useQuery({
    queryKey: ["rehearsals", book, round.id, round.revision, round.preparedAt],
    queryFn: () => rehearsalsOf(book, round.id),
    staleTime: 0,
    refetchInterval: ({ state }) =>
      state.data?.rehearsals.some((r) => r.parcels.some((p) => onItsWay.includes(p.status))) ? 1_000 : false,
  });
}

/** What can be done about rehearsals of a round. */
export function useRehearsalActions(round: Round) {
  const book = useBookId();
  const client = useQueryClient();
  const settle = { onSuccess: () => client.invalidateQueries({ queryKey: ["rehearsals", book, round.id] }) };
  return {
    begin: useMutation({
      mutationFn: (body: Schemas["RehearsalRequest"]) => rehearse(book, round.id, round.revision, body),
      ...settle,
    }),
    look: useMutation({
      mutationFn: ({ rehearsal, parcel }: { rehearsal: number; parcel: number | null }) =>
        lookedAtRehearsal(book, round.id, rehearsal, { parcel }),
      ...settle,
    }),
  };
}
