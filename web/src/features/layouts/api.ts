import { api, must, type Schemas } from "../../shared/api/client";

/** All layouts of the book, and what can stand on one. */
export const layoutList = (book: number) => must(api.GET("/api/books/{book}/layouts", { params: { path: { book } } }));

/** The customer of the ledger with the most rows, and one with the fewest. */
export const layoutSamples = (book: number) =>
  must(api.GET("/api/books/{book}/layouts/samples", { params: { path: { book } } }));

/** One layout as it is now. */
export const layoutOf = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/layouts/{id}", { params: { path: { book, id } } }));

/** Adds a layout. */
export const addLayout = (book: number, body: Schemas["Layout"]) =>
  must(api.POST("/api/books/{book}/layouts", { params: { path: { book } }, body }));

/** Saves a layout upon the version that it was edited from. */
export const saveLayout = (book: number, id: number, body: Schemas["LayoutChange"]) =>
  must(api.PUT("/api/books/{book}/layouts/{id}", { params: { path: { book, id } }, body }));

/** Takes a layout away. */
export const takeLayoutAway = (book: number, id: number) =>
  must(api.DELETE("/api/books/{book}/layouts/{id}", { params: { path: { book, id } } }));

/** Says what a layout is used for. */
export const assignLayout = (book: number, body: Schemas["AssignmentRequest"]) =>
  must(api.POST("/api/books/{book}/layouts/use", { params: { path: { book } }, body }));

/** The versions of a layout. */
export const layoutVersions = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/layouts/{id}/versions", { params: { path: { book, id } } }));

/** A layout as it was in a version. */
export const layoutVersion = (book: number, id: number, version: number) =>
  must(api.GET("/api/books/{book}/layouts/{id}/versions/{version}", { params: { path: { book, id, version } } }));

/** Layouts to begin from. */
export const readyMadeLayouts = (book: number) =>
  must(api.GET("/api/books/{book}/layouts/ready-made", { params: { path: { book } } }));
