import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App } from "antd";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useRoundActions, type Round } from "./useRound";

export type Account = Schemas["AccountView"];
export type AccountItem = Schemas["AccountItem"];

/** The account of one customer as the round sees it. */
export function useAccount(round: Round, customer: string) {
  const book = useBookId();
  return useQuery({
    queryKey: ["account", book, round.id, customer, round.preparedAt],
    queryFn: () =>
      must(
        api.GET("/api/books/{book}/rounds/{id}/accounts/{customer}", {
          params: { path: { book, id: round.id, customer } },
        }),
      ),
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
      mutationFn: (body: Schemas["ItemDecisionRequest"]) =>
        must(
          api.POST("/api/books/{book}/rounds/{id}/items", {
            params: { path: { book, id: round.id }, query: { revision: round.revision } },
            body,
          }),
        ),
      onSuccess: () => client.invalidateQueries({ queryKey: ["round", book, round.id] }),
      onError,
    }),
    hold: useMutation({
      mutationFn: (body: Schemas["HoldRequest"]) =>
        must(api.POST("/api/books/{book}/items/holds", { params: { path: { book } }, body })),
      ...prepared,
    }),
    endHold: useMutation({
      mutationFn: (item: string) =>
        must(api.POST("/api/books/{book}/items/holds/end", { params: { path: { book } }, body: { item } })),
      ...prepared,
    }),
    settle: useMutation({
      mutationFn: (body: Schemas["SettleRequest"]) =>
        must(api.POST("/api/books/{book}/items/settlements", { params: { path: { book } }, body })),
      ...prepared,
    }),
    takeBack: useMutation({
      mutationFn: (settlement: number) =>
        must(
          api.POST("/api/books/{book}/items/settlements/{settlement}/take-back", {
            params: { path: { book, settlement } },
          }),
        ),
      ...prepared,
    }),
  };
}
