import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App } from "antd";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useRoundActions, type Round } from "./useRound";
import { accountOf, decideOnItem, endItemHold, holdItem, settleItem, takeSettlementBack } from "./api";

export type Account = Schemas["AccountView"];
export type AccountItem = Schemas["AccountItem"];

/** The account of one customer as the round sees it. */
export function useAccount(round: Round, customer: string) {
  const book = useBookId();
  return useQuery({
    queryKey: ["account", book, round.id, customer, round.preparedAt],
    queryFn: () => accountOf(book, round.id, customer),
  });
}

/** What can be said about the items of an account. The round is prepared anew each time, so that its proof holds. */
export function useAccountActions(round: Round) {
  const book = useBookId();
  const client = useQueryClient();
  const actions = useRoundActions();
  const { message } = App.useApp();
  const onError = (error: Error) => message.error(error.message);
  const prepared = { onSuccess: () => actions.prepare.mutate(), onError };
  return {
    decide: useMutation({
      mutationFn: (body: Schemas["ItemDecisionRequest"]) => decideOnItem(book, round.id, round.revision, body),
      onSuccess: () => client.invalidateQueries({ queryKey: ["round", book, round.id] }),
      onError,
    }),
    hold: useMutation({
      mutationFn: (body: Schemas["HoldRequest"]) => holdItem(book, body),
      ...prepared,
    }),
    endHold: useMutation({
      mutationFn: (item: string) => endItemHold(book, { item }),
      ...prepared,
    }),
    settle: useMutation({
      mutationFn: (body: Schemas["SettleRequest"]) => settleItem(book, body),
      ...prepared,
    }),
    takeBack: useMutation({
      mutationFn: (settlement: number) => takeSettlementBack(book, settlement),
      ...prepared,
    }),
  };
}
