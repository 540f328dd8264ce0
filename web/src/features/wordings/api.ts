import { api, must, upload, type Schemas } from "../../shared/api/client";
import { served } from "../../shared/served";

/** All wordings of the book. */
export const wordingList = (book: number) =>
  must(api.GET("/api/books/{book}/wordings", { params: { path: { book } } }));

/** Wordings to begin from. */
export const readyMadeWordings = (book: number) =>
  must(api.GET("/api/books/{book}/wordings/ready-made", { params: { path: { book } } }));

/** Adds a wording. */
export const addWording = (book: number, body: Schemas["WordingRequest"]) =>
  must(api.POST("/api/books/{book}/wordings", { params: { path: { book } }, body }));

/** Adds the wording of a file. */
export const takeWording = (book: number, file: File) =>
  upload<Schemas["WordingView"]>(served(`/api/books/${book}/wordings/file`), file);

/** Where a wording is saved from as a file. */
export const wordingFile = (book: number, id: number) => served(`/api/books/${book}/wordings/${id}/file`);

/** Saves a wording upon the version that it was edited from. */
export const saveWording = (book: number, id: number, body: Schemas["WordingRequest"]) =>
  must(api.PUT("/api/books/{book}/wordings/{id}", { params: { path: { book, id } }, body }));

/** What a wording was, the newest version first. */
export const wordingVersions = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/wordings/{id}/versions", { params: { path: { book, id } } }));

/** A wording as it was from a change on. */
export const wordingVersion = (book: number, id: number, change: number) =>
  must(api.GET("/api/books/{book}/wordings/{id}/versions/{change}", { params: { path: { book, id, change } } }));

/** Adds a picture that can stand in messages. */
export const addPicture = (book: number, body: Schemas["PictureRequest"]) =>
  must(api.POST("/api/books/{book}/pictures", { params: { path: { book } }, body }));

/** Says what a wording is used for. */
export const assignWording = (book: number, body: Schemas["AssignmentRequest"]) =>
  must(api.POST("/api/books/{book}/wordings/use", { params: { path: { book } }, body }));

/** All slots, with what stands in them for a customer. */
export const slotList = (book: number, customer: string) =>
  must(api.GET("/api/books/{book}/slots", { params: { path: { book }, query: { customer } } }));

/** Saves the firm's name and lines. */
export const saveFirm = (book: number, body: Schemas["FirmRequest"]) =>
  must(api.PUT("/api/books/{book}/firm", { params: { path: { book } }, body }));

/** A wording filled for a customer of the ledger, as it is being written. */
export const previewWording = (book: number, customer: string, level: number | null, body: Schemas["WordingRequest"]) =>
  must(
    api.POST("/api/books/{book}/wordings/preview", {
      params: { path: { book }, query: { customer, ...(level === null ? {} : { level }) } },
      body,
    }),
  );

/** What is meant so in the messages of a wording. */
export const meantSo = (book: number, wording: number) =>
  must(api.GET("/api/books/{book}/wordings/{wording}/meant", { params: { path: { book, wording } } }));

/** Says that it is meant so in the messages of a wording. */
export const meanSo = (book: number, wording: number, body: Schemas["MeantRequest"]) =>
  must(api.POST("/api/books/{book}/wordings/{wording}/meant", { params: { path: { book, wording } }, body }));

/** Takes that back. */
export const meanNoMoreSo = (book: number, wording: number, body: Schemas["MeantRequest"]) =>
  must(api.POST("/api/books/{book}/wordings/{wording}/meant-no-more", { params: { path: { book, wording } }, body }));
