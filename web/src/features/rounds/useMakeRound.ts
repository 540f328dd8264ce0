import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useGoOn } from "../../shared/useGoOn";
import { makeRound } from "./api";

/** Makes a round and goes to it. */
export function useMakeRound() {
  const book = useBookId();
  const client = useQueryClient();
  const goOn = useGoOn();
  return useMutation({
    // It is prepared on the workbench, where one sees how far that is.
    mutationFn: (body: Omit<Schemas["NewRound"], "prepared">) => makeRound(book, { ...body, prepared: false }),
    onSuccess: async (round) => {
      client.setQueryData(["round", book, round.id], round);
      await client.invalidateQueries({ queryKey: ["rounds", book] });
      await goOn(`/books/${book}/rounds/${round.id}`);
    },
  });
}
