import { api, must, type Schemas } from "../../shared/api/client";

/** The currencies that a book can be kept in. */
export const currencyList = () => must(api.GET("/api/currencies"));

/** Makes the first person and the first book. */
export const beginFirst = (body: Schemas["FirstRunRequest"]) => must(api.POST("/api/first-run", { body }));

/** What a link invites to. */
export const invitation = (key: string) => must(api.GET("/api/invitations/{key}", { params: { path: { key } } }));

/** Takes an invitation as somebody new. */
export const joinByInvitation = (body: Schemas["FollowedInvitation"]) =>
  must(api.POST("/api/invitations/join", { body }));

/** Takes an invitation as the person who is signed in. */
export const acceptInvitation = (body: Schemas["AcceptedInvitation"]) =>
  must(api.POST("/api/invitations/accept", { body }));

/** Signs in. */
export const signIn = (body: Schemas["Credentials"]) => must(api.POST("/api/session", { body }));

/** Makes a book. */
export const makeBook = (body: Schemas["NewBook"]) => must(api.POST("/api/books", { body }));

/** Whose password a link sets anew. */
export const passwordReset = (key: string) => must(api.GET("/api/resets/{key}", { params: { path: { key } } }));

/** Sets a password anew by a link. */
export const followReset = (body: Schemas["FollowedReset"]) => must(api.POST("/api/resets/follow", { body }));

/** Whether nobody can sign in yet. */
export const firstRunNeeded = () => must(api.GET("/api/first-run"));
