import { api, must, type Schemas } from "../../shared/api/client";

/** What there is to do today, with the sums in a currency; nothing while there is no ledger. */
export const todayIn = (book: number, currency: string | undefined) =>
  must<Schemas["TodayView"] | undefined>(
    api.GET("/api/books/{book}/today", { params: { path: { book }, query: { currency } } }),
  );
