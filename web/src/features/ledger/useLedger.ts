import { useQuery } from "@tanstack/react-query";
import { api, must, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

/** The ledger as it is now; null inside while nothing was taken in. */
export function useLedger() {
  const book = useBookId();
  return useQuery({
    queryKey: ["ledger", book],
    queryFn: async () => ({
      ledger:
        (await must<Schemas["LedgerView"] | undefined>(
          api.GET("/api/books/{book}/ledger", { params: { path: { book } } }),
        )) ?? null,
    }),
  });
}
