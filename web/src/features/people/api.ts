import { api, must, type Schemas } from "../../shared/api/client";

/** Who has the book, and who is invited to it. */
export const peopleOf = (book: number) => must(api.GET("/api/books/{book}/people", { params: { path: { book } } }));

/** Gives the book to a person, or invites them. */
export const giveBook = (book: number, body: Schemas["GiveRequest"]) =>
  must(api.POST("/api/books/{book}/people", { params: { path: { book } }, body }));

/** Takes the book from a person. */
export const takeBookFrom = (book: number, person: number) =>
  must(api.DELETE("/api/books/{book}/people/{person}", { params: { path: { book, person } } }));

/** Says whether nobody may release what they prepared themselves. */
export const demandSecondPerson = (book: number, isNeeded: boolean) =>
  must(api.PUT("/api/books/{book}/people/second-person", { params: { path: { book } }, body: { isNeeded } }));

/** Withdraws an invitation. */
export const withdrawInvitation = (book: number, id: number) =>
  must(api.DELETE("/api/books/{book}/people/invitations/{id}", { params: { path: { book, id } } }));
