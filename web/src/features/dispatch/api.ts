import { api, must, type Query, type Schemas } from "../../shared/api/client";

/** Makes a round of one parcel that went, to send it once more. */
export const repeatParcel = (book: number, parcel: number) =>
  must(api.POST("/api/books/{book}/dispatch/{parcel}/repeat", { params: { path: { book, parcel } } }));

/** What people added to the record of a parcel. */
export const parcelNotes = (book: number, parcel: number) =>
  must(api.GET("/api/books/{book}/dispatch/{parcel}/notes", { params: { path: { book, parcel } } }));

/** Adds to the record of a parcel; gives all that was added. */
export const addParcelNote = (book: number, parcel: number, body: Schemas["NoteRequest"]) =>
  must(api.POST("/api/books/{book}/dispatch/{parcel}/notes", { params: { path: { book, parcel } }, body }));

/** The messages that may be delivery reports and wait until a person has said so. */
export const unclearReturned = (book: number) =>
  must(api.GET("/api/books/{book}/returned/unclear", { params: { path: { book } } }));

/** Says whether a message reports that something was not delivered. */
export const decideReturned = (book: number, id: number, body: Schemas["ReturnedDecision"]) =>
  must(api.PUT("/api/books/{book}/returned/{id}/decision", { params: { path: { book, id } }, body }));

/** The entries of the dispatch log that are looked for. */
export const dispatchLog = (book: number, query: Query<"/api/books/{book}/dispatch">) =>
  must(api.GET("/api/books/{book}/dispatch", { params: { path: { book }, query } }));

/** The rounds that have entries in the dispatch log. */
export const releasedRounds = (book: number) =>
  must(api.GET("/api/books/{book}/dispatch/rounds", { params: { path: { book } } }));

/** Takes in files with mail that came back; gives what became of each. */
export function takeInReturned(book: number, files: File[]) {
  const form = new FormData();
  files.forEach((file) => form.append("files", file));
  return must(
    api.POST("/api/books/{book}/returned", {
      params: { path: { book } },
      // The generated client takes JSON alone.
      body: form as never,
      bodySerializer: (body: unknown) => body as FormData,
    }),
  );
}
