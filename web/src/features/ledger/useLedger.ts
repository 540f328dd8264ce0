import { useQuery } from "@tanstack/react-query";
import { useBookId } from "../../shared/useBook";
import { ledgerNow } from "./api";

/** The ledger as it is now; null inside while nothing was taken in. */
export function useLedger() {
  const book = useBookId();
  return useQuery({
    queryKey: ["ledger", book],
    queryFn: async () => ({ ledger: (await ledgerNow(book)) ?? null }),
  });
}
