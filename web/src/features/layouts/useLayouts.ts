import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { addLayout, assignLayout, layoutList, layoutOf, layoutSamples, saveLayout, takeLayoutAway } from "./api";

/** The server always says everything; what may be left away is left away in files alone. */
type Filled<T> = T extends (infer E)[] ? Filled<E>[] : T extends object ? { [K in keyof T]-?: Filled<T[K]> } : T;

export type Layout = Filled<Schemas["Layout"]>;
export type LayoutPart = Layout["parts"][number];
export type PartName = LayoutPart["part"];
export type PartOf<Name extends PartName> = Extract<LayoutPart, { part: Name }>;
export type LayoutList = Schemas["LayoutList"];

export interface StoredLayout {
  id: number;
  version: number;
  layout: Layout;
  madeBy: string;
  madeAt: string;
}

/** All layouts of the book, and what can stand on one. */
export function useLayouts() {
  const book = useBookId();
  return useQuery({
    queryKey: ["layouts", book],
    queryFn: () => layoutList(book),
  });
}

/** The customer of the ledger with the most rows, and one with the fewest. */
export function useSamples() {
  const book = useBookId();
  return useQuery({
    queryKey: ["samples", book],
    queryFn: () => layoutSamples(book),
  });
}

/** One layout as it is now; the one that is there before any was made has the number 0. */
export function useLayout(id: number) {
  const book = useBookId();
  return useQuery({
    queryKey: ["layouts", book, id],
    queryFn: async () => {
      if (id === 0) {
        const list = await layoutList(book);
        return { id: 0, version: 0, layout: list.builtIn, madeBy: "", madeAt: "" } as StoredLayout;
      }
      return (await layoutOf(book, id)) as StoredLayout;
    },
    structuralSharing: false,
  });
}

/** What can be done with layouts. */
export function useLayoutActions() {
  const book = useBookId();
  const client = useQueryClient();
  const anew = () => client.invalidateQueries();
  return {
    add: useMutation({
      mutationFn: (layout: Layout) => addLayout(book, layout),
      onSuccess: anew,
    }),
    save: useMutation({
      mutationFn: ({ id, version, layout }: { id: number; version: number; layout: Layout }) =>
        saveLayout(book, id, { version, layout }),
      onSuccess: anew,
    }),
    takeAway: useMutation({
      mutationFn: (id: number) => takeLayoutAway(book, id),
      onSuccess: () => client.invalidateQueries({ queryKey: ["layouts", book], exact: true }),
    }),
    use: useMutation({
      mutationFn: (use: Schemas["AssignmentRequest"]) => assignLayout(book, use),
      onSuccess: anew,
    }),
  };
}
