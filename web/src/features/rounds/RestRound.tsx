import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";
import { api, must } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useGoOn } from "../../shared/useGoOn";
import type { Round } from "./useRound";

/** Makes a round of what was not let go in a released one, prepared anew from the ledger as it is now. */
export function RestRound({ round }: { round: Round }) {
  const book = useBookId();
  const client = useQueryClient();
  const goOn = useGoOn();
  const { message } = App.useApp();
  const making = useMutation({
    mutationFn: () =>
      must(api.POST("/api/books/{book}/rounds/{id}/rest", { params: { path: { book, id: round.id } } })),
    onSuccess: async (made) => {
      await goOn(`/books/${book}/rounds/${made.id}`);
      await client.invalidateQueries({ queryKey: ["rounds", book] });
      await client.invalidateQueries({ queryKey: ["round", book, round.id] });
    },
    onError: (e) => void message.error(e.message),
  });
  return (
    <Button size="small" loading={making.isPending} onClick={() => making.mutate()}>
      New round for the other {count(round.rest, "parcel")}
    </Button>
  );
}
