import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

/** All wordings of the book, and what they are used for. */
export function useWordings() {
  const book = useBookId();
  return useQuery({
    queryKey: ["wordings", book],
    queryFn: () => must(api.GET("/api/books/{book}/wordings", { params: { path: { book } } })),
  });
}

/** The wordings that one can begin from, in all languages. */
export function useReadyMadeWordings() {
  const book = useBookId();
  return useQuery({
    queryKey: ["ready-made-wordings", book],
    queryFn: () => must(api.GET("/api/books/{book}/wordings/ready-made", { params: { path: { book } } })),
  });
}

/** What can be done with wordings. */
export function useWordingActions() {
  const book = useBookId();
  const client = useQueryClient();
  const path = { book };
  const anew = () => client.invalidateQueries({ queryKey: ["wordings", book] });
  return {
    add: useMutation({
      mutationFn: (wording: Schemas["WordingRequest"]) =>
        must(api.POST("/api/books/{book}/wordings", { params: { path }, body: wording })),
      onSuccess: anew,
    }),
    save: useMutation({
      mutationFn: ({ id, ...body }: Schemas["WordingRequest"] & { id: number }) =>
        must(api.PUT("/api/books/{book}/wordings/{id}", { params: { path: { book, id } }, body })),
      // Also where somebody else was quicker: what they wrote is what the next change is made upon.
      onSettled: anew,
    }),
    keepPicture: useMutation({
      mutationFn: (picture: Schemas["PictureRequest"]) =>
        must(api.POST("/api/books/{book}/pictures", { params: { path }, body: picture })),
    }),
    use: useMutation({
      mutationFn: (use: Schemas["AssignmentRequest"]) =>
        must(api.POST("/api/books/{book}/wordings/use", { params: { path }, body: use })),
      onSuccess: anew,
    }),
  };
}
