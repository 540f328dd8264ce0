import { api, must, type Schemas } from "../../shared/api/client";

/** Saves what holds for all figures of the book. */
export const saveRules = (book: number, body: Schemas["RulesRequest"]) =>
  must(api.PUT("/api/books/{book}/rules", { params: { path: { book } }, body }));
