import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { meanNoMoreSo, meanSo, meantSo } from "./api";

/** What is meant so in the messages of a wording, and saying so. */
export function useMeant(wording: number, isAsked: boolean) {
  const book = useBookId();
  const client = useQueryClient();
  const meant = useQuery({
    queryKey: ["meant", book, wording],
    queryFn: () => meantSo(book, wording),
    enabled: isAsked,
  });
  // Parcels and rounds tell what nobody said is meant so.
  const onSettled = () =>
    Promise.all(
      [
        ["meant", book, wording],
        ["parcel", book],
        ["remarks", book],
      ].map((queryKey) => client.invalidateQueries({ queryKey })),
    );
  return {
    meant: meant.data ?? [],
    mean: useMutation({ mutationFn: (what: Schemas["MeantRequest"]) => meanSo(book, wording, what), onSettled }),
    meanNoMore: useMutation({
      mutationFn: (what: Schemas["MeantRequest"]) => meanNoMoreSo(book, wording, what),
      onSettled,
    }),
  };
}
