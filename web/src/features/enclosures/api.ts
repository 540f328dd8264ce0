import { api, must, ownHeader, problemOf, reached, type Schemas } from "../../shared/api/client";
import { work, type WorkProgress } from "../../shared/api/work";
import { served } from "../../shared/served";

export type EnclosureUse = "copy" | "customer" | "picked";
export type Added = Schemas["AddedEnclosures"];

/** The files that can be picked for rounds; or those that are kept with a customer. */
export const enclosuresOf = (book: number, customer?: string) =>
  must(api.GET("/api/books/{book}/enclosures", { params: { path: { book }, query: { customer } } }));

/** Begins to upload a file, or goes on with it. */
export const beginUpload = (book: number, body: Schemas["UploadRequest"]) =>
  must(api.POST("/api/books/{book}/enclosures/uploads", { params: { path: { book } }, body }));

/** Uploads the next piece of a file, which the generated client does not do. */
export async function uploadPiece(
  book: number,
  id: number,
  at: number,
  piece: Blob,
  signal: AbortSignal,
): Promise<Schemas["UploadView"]> {
  const response = await reached(served(`/api/books/${book}/enclosures/uploads/${id}/${at}`), {
    method: "PUT",
    body: piece,
    signal,
    headers: { ...ownHeader, "Content-Type": "application/octet-stream" },
  });
  const answer: unknown = await response.json().catch(() => undefined);
  if (!response.ok) {
    throw problemOf(response, answer);
  }
  return answer as Schemas["UploadView"];
}

/** Keeps what was uploaded. */
export const addUploaded = (
  book: number,
  id: number,
  use: EnclosureUse,
  customer: string,
  signal: AbortSignal,
  onProgress: (progress: WorkProgress) => void,
) =>
  work<Added>(
    "POST",
    served(`/api/books/${book}/enclosures/uploads/${id}/add?use=${use}&customer=${encodeURIComponent(customer)}`),
    signal,
    onProgress,
  );

/** Deletes files, so that they go with nothing any more. */
export const deleteEnclosures = (book: number, files: number[]) =>
  must(api.POST("/api/books/{book}/enclosures/deleted", { params: { path: { book } }, body: { files } }));

/** A part of the list of copies of a round. */
export const copiesOf = (book: number, id: number, state: string, find: string, from: number) =>
  must(
    api.GET("/api/books/{book}/rounds/{id}/copies", { params: { path: { book, id }, query: { state, find, from } } }),
  );

/** Says what files are copies of. */
export const sayCopyOf = (book: number, body: Schemas["CopyOfRequest"]) =>
  must(api.PUT("/api/books/{book}/enclosures/copies", { params: { path: { book } }, body }));

/** How files are looked at. */
export const enclosureSettings = (book: number) =>
  must(api.GET("/api/books/{book}/enclosures/settings", { params: { path: { book } } }));

/** Settles how files are looked at. */
export const settleEnclosures = (book: number, body: Schemas["EnclosureSettingsRequest"]) =>
  must(api.PUT("/api/books/{book}/enclosures/settings", { params: { path: { book } }, body }));

/** Where a file is fetched from. */
export const fileAddress = (book: number, file: number) => served(`/api/books/${book}/enclosures/${file}/file`);
