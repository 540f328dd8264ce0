import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App } from "antd";
import { useEffect, useRef } from "react";
import { useParams } from "react-router";
import { Problem, type Schemas } from "../../shared/api/client";
import { served } from "../../shared/served";
import { useBookId } from "../../shared/useBook";
import { usePreparing, wasStopped } from "./usePreparing";
import {
  countRound,
  changeParcel,
  decideOnCustomers,
  lookedAt,
  putSourceRight,
  releaseRound,
  requestRelease,
  roundOf,
  roundRevision,
  setRecipientsForGood,
} from "./api";

export type Round = Schemas["RoundView"];
export type Parcel = Schemas["ParcelLine"];
export type LeftOut = Schemas["LeftOutLine"];
export type RoundSettings = Schemas["RoundRequest"];

/** The round in the address. */
export function useRound() {
  const book = useBookId();
  const id = Number(useParams().round);
  return useQuery({
    queryKey: ["round", book, id],
    queryFn: () => roundOf(book, id),
  });
}

/** What somebody changes in a round, and the round as they saw it. */
export interface RoundChange {
  seen: Round;
  change: Partial<RoundSettings>;
}

/** The settings that a change asks for. */
export const settingsOf = ({ seen, change }: RoundChange): RoundSettings => ({ ...seen.settings, ...change });

const lookEvery = 1_500;

/**
 * Brings what others change in a round that is not released, and prepares it anew where something that it uses was changed.
 * Nothing of what is being done on the page is lost by it.
 */
export function useOthersChanges(round: Round, busy: boolean, prepare: () => void) {
  const book = useBookId();
  const client = useQueryClient();
  const { id, revision, preparedAt, releasedAt } = round;
  const now = useQuery({
    queryKey: ["revision", book, id, revision, preparedAt, releasedAt],
    queryFn: () => roundRevision(book, id, revision, preparedAt ?? undefined),
    enabled: releasedAt === null,
    refetchInterval: lookEvery,
    gcTime: 0,
  }).data;
  const isOther = now?.isOther ?? false;
  const isBehind = releasedAt === null && (now?.isBehind ?? round.isBehind);
  useEffect(() => {
    if (isOther) {
      void client.invalidateQueries({ queryKey: ["round", book, id] });
      void client.invalidateQueries({ queryKey: ["parcel", book] });
    }
  }, [isOther, client, book, id]);
  const prepared = useRef(prepare);
  useEffect(() => {
    prepared.current = prepare;
  });
  // Once for each state of the round: where it cannot be prepared, that is told once.
  const tried = useRef("");
  useEffect(() => {
    const state = `${revision} ${preparedAt ?? ""}`;
    if (isBehind && !busy && tried.current !== state) {
      tried.current = state;
      prepared.current();
    }
  }, [isBehind, busy, revision, preparedAt]);
}

/** Tells that somebody looked at a parcel, or through the whole round, so that what changed of it is not marked any more. */
export function useLookedAt(round: Round) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const { mutate } = useMutation({
    mutationFn: (parcel: number | null) => lookedAt(book, round.id, { preparedAt: round.preparedAt ?? "", parcel }),
    onSuccess: () => client.invalidateQueries({ queryKey: ["round", book, round.id] }),
    onError: (error) => message.error(error.message),
  });
  return mutate;
}

/** What a choice comes to, told while its parcels are still being made up; nothing where none is being carried out. */
export function useCount(settings: RoundSettings | undefined) {
  const book = useBookId();
  const id = Number(useParams().round);
  return useQuery({
    queryKey: ["count", book, id, settings],
    enabled: settings !== undefined,
    gcTime: 0,
    // Where other items are wanted nothing can be told before the parcels are made up.
    queryFn: async () => (await countRound(book, id, settings as RoundSettings)) ?? null,
  });
}

/** What can be done with the round in the address; each brings the round as it is afterwards. */
export function useRoundActions() {
  const book = useBookId();
  const id = Number(useParams().round);
  const client = useQueryClient();
  const { message } = App.useApp();
  const at = served(`/api/books/${book}/rounds/${id}`);
  const preparing = usePreparing();
  const settle = {
    onSuccess: (round: Round) => {
      client.setQueryData(["round", book, id], round);
      void client.invalidateQueries({ queryKey: ["parcel", book] });
      void client.invalidateQueries({ queryKey: ["rounds", book] });
    },
    onError: (error: Error) => {
      const isStopped = wasStopped(error);
      if (!isStopped) {
        message.error(error.message);
      }
      if (isStopped || (error instanceof Problem && error.status === 409)) {
        // What was changed before it was stopped, or by others who were first, is shown.
        void client.invalidateQueries({ queryKey: ["round", book, id] });
      }
    },
  };
  const settleInPart = {
    onSuccess: async () => {
      void client.invalidateQueries({ queryKey: ["parcel", book] });
      void client.invalidateQueries({ queryKey: ["rounds", book] });
      // Until the round is shown as it is now, what was pressed counts.
      await client.invalidateQueries({ queryKey: ["round", book, id] });
    },
    onError: settle.onError,
  };
  // One after the other, in the order in which they were made.
  const scope = { id: `round ${id}` };
  return {
    preparing,
    change: useMutation({
      scope,
      mutationFn: (change: RoundChange) =>
        preparing.run("PUT", `${at}?revision=${change.seen.revision}`, settingsOf(change)),
      ...settle,
    }),
    prepare: useMutation({
      scope,
      mutationFn: () => preparing.run("POST", `${at}/prepare`),
      ...settle,
    }),
    decide: useMutation({
      scope,
      mutationFn: ({ seen, ...body }: Schemas["DecisionRequest"] & { seen: Round }) =>
        decideOnCustomers(book, id, seen.revision, body),
      ...settleInPart,
    }),
    changeParcel: useMutation({
      scope,
      mutationFn: ({ seen, parcel, ...body }: Schemas["ParcelChangeRequest"] & { seen: Round; parcel: number }) =>
        changeParcel(book, parcel, seen.revision, body),
      ...settleInPart,
    }),
    setRecipientsForGood: useMutation({
      scope,
      mutationFn: ({ seen, parcel, ...body }: Schemas["RecipientsRequest"] & { seen: Round; parcel: number }) =>
        setRecipientsForGood(book, parcel, seen.revision, body),
      ...settleInPart,
    }),
    putRight: useMutation({
      scope,
      mutationFn: ({ parcel, from, becomes }: { parcel: number; from: string; becomes: string }) =>
        putSourceRight(book, parcel, from, becomes),
      // The ledger is another now, and whatever is made from it.
      onSuccess: () => client.invalidateQueries(),
    }),
    release: useMutation({
      mutationFn: (request: Schemas["ReleaseRequest"]) => releaseRound(book, id, request),
      onSuccess: settle.onSuccess,
    }),
    requestRelease: useMutation({
      scope,
      mutationFn: (request: Schemas["AskedRelease"]) => requestRelease(book, id, request),
      onSuccess: () => client.invalidateQueries({ queryKey: ["rounds", book] }),
      onError: settle.onError,
    }),
  };
}
