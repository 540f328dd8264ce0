import { api, must, type Schemas } from "../../shared/api/client";

/** What arrived in the postroom, searched; all without a search. */
export const postroomMessages = (book: number, search = "") =>
  must(api.GET("/api/books/{book}/postroom", { params: { path: { book }, query: { search } } }));

/** The drills of the postroom and its limits. */
export const drillList = (book: number) =>
  must(api.GET("/api/books/{book}/postroom/drills", { params: { path: { book } } }));

/** Sets what the postroom does to what arrives. */
export const saveDrill = (book: number, body: Schemas["DrillView"]) =>
  must(api.POST("/api/books/{book}/postroom/drills", { params: { path: { book } }, body }));

/** Sets what the postroom takes at all. */
export const setPostroomLimits = (book: number, body: Schemas["LimitsRequest"]) =>
  must(api.PUT("/api/books/{book}/postroom/drills/limits", { params: { path: { book } }, body }));

/** Ends all drills. */
export const endDrills = (book: number) =>
  must(api.DELETE("/api/books/{book}/postroom/drills", { params: { path: { book } } }));

/** Throws away what arrived in the postroom. */
export const emptyPostroom = (book: number) =>
  must(api.DELETE("/api/books/{book}/postroom", { params: { path: { book } } }));

/** Has the postroom report that a message could not be delivered. */
export const returnMessage = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/postroom/{id}/return", { params: { path: { book, id } } }));
