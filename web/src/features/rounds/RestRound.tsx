import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";

import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { useGoOn } from "../../shared/useGoOn";
import type { Round } from "./useRound";
import { restRound } from "./api";

/** Makes a round of what did not go in a released one, prepared anew from the ledger as it is now. */
export function RestRound({ round }: { round: Round }) {
  const book = useBookId();
  const client = useQueryClient();
  const goOn = useGoOn();
  const { message } = App.useApp();
  const making = useMutation({
    mutationFn: () => restRound(book, round.id),
    onSuccess: async (made) => {
      await goOn(`/books/${book}/rounds/${made.id}`);
      await client.invalidateQueries({ queryKey: ["rounds", book] });
      await client.invalidateQueries({ queryKey: ["round", book, round.id] });
    },
    onError: (e) => void message.error(e.message),
  });
  return (
    <Button size="small" loading={making.isPending} onClick={() => making.mutate()}>
      New round for {count(round.rest, "parcel")} that did not go
    </Button>
  );
}
