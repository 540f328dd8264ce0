import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { addPicture, addWording, assignWording, readyMadeWordings, saveWording, takeWording, wordingList } from "./api";

/** All wordings of the book, and what they are used for. */
export function useWordings() {
  const book = useBookId();
  return useQuery({
    queryKey: ["wordings", book],
    queryFn: () => wordingList(book),
  });
}

/** The wordings that one can begin from, in all languages. */
export function useReadyMadeWordings() {
  const book = useBookId();
  return useQuery({
    queryKey: ["ready-made-wordings", book],
    queryFn: () => readyMadeWordings(book),
  });
}

/** What can be done with wordings. */
export function useWordingActions() {
  const book = useBookId();
  const client = useQueryClient();
  const anew = () => client.invalidateQueries({ queryKey: ["wordings", book] });
  return {
    add: useMutation({
      mutationFn: (wording: Schemas["WordingRequest"]) => addWording(book, wording),
      onSuccess: anew,
    }),
    take: useMutation({
      mutationFn: (file: File) => takeWording(book, file),
      onSuccess: anew,
    }),
    save: useMutation({
      mutationFn: ({ id, ...body }: Schemas["WordingRequest"] & { id: number }) => saveWording(book, id, body),
      // Also where somebody else was quicker: what they wrote is what the next change is made upon.
      onSettled: anew,
    }),
    keepPicture: useMutation({
      mutationFn: (picture: Schemas["PictureRequest"]) => addPicture(book, picture),
    }),
    use: useMutation({
      mutationFn: (use: Schemas["AssignmentRequest"]) => assignWording(book, use),
      onSuccess: anew,
    }),
  };
}
