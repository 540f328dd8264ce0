import { api, must, type Schemas } from "../../shared/api/client";

/** Takes in cells that were pasted from a spreadsheet. */
export const takeInPasted = (book: number, body: Schemas["PasteRequest"]) =>
  must(api.POST("/api/books/{book}/intakes/paste", { params: { path: { book } }, body }));

/** Rows of a file, from a row on, which counts from 1. */
export const fileRows = (book: number, id: number, from: number, count: number) =>
  must(api.GET("/api/books/{book}/intakes/{id}/rows", { params: { path: { book, id }, query: { from, count } } }));

/** Makes two customers one. */
export const joinCustomers = (book: number, body: Schemas["JoinRequest"]) =>
  must(api.POST("/api/books/{book}/corrections/customers", { params: { path: { book } }, body }));

/** Leaves a row of a file out. */
export const leaveOutRow = (book: number, body: Schemas["LeaveOutRequest"]) =>
  must(api.POST("/api/books/{book}/corrections/row", { params: { path: { book } }, body }));

/** Puts a value of a file right. */
export const correctValue = (book: number, body: Schemas["ValueRequest"]) =>
  must(api.POST("/api/books/{book}/corrections/value", { params: { path: { book } }, body }));

/** What was decided about how a file is read. */
export const intakeReading = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/intakes/{id}/reading", { params: { path: { book, id } } }));

/** Decides how a file is read. */
export const saveIntakeReading = (book: number, id: number, body: Schemas["ReadingRequest"]) =>
  must(api.PUT("/api/books/{book}/intakes/{id}/reading", { params: { path: { book, id } }, body }));

/** Looks once more at the file of an intake, as what it was given for or as something else. */
export const lookAgain = (book: number, id: number, kind?: Schemas["IntakeKind"]) =>
  must(api.POST("/api/books/{book}/intakes/{id}/again", { params: { path: { book, id }, query: { kind } } }));

/** All corrections of the book. */
export const correctionList = (book: number) =>
  must(api.GET("/api/books/{book}/corrections", { params: { path: { book } } }));

/** Takes a correction back. */
export const takeCorrectionBack = (book: number, id: number) =>
  must(api.DELETE("/api/books/{book}/corrections/{id}", { params: { path: { book, id } } }));

/** The files that were taken in, the newest first. */
export const intakeList = (book: number) => must(api.GET("/api/books/{book}/intakes", { params: { path: { book } } }));

/** Undoes the last kept intake. */
export const undoIntake = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/intakes/{id}/undo", { params: { path: { book, id } } }));

/** The ledger as it is now; nothing while none was taken in. */
export const ledgerNow = (book: number) =>
  must<Schemas["LedgerView"] | undefined>(api.GET("/api/books/{book}/ledger", { params: { path: { book } } }));
