import { api, must, type Schemas } from "../../shared/api/client";

/** Makes the link by which a person who forgot their password sets a new one. */
export const letIn = (body: Schemas["ResetRequest"]) => must(api.POST("/api/resets", { body }));

/** Keeps where the person who is signed in is told of rounds that have ended; empty for nowhere. */
export const keepNoticeAddress = (body: Schemas["AddressRequest"]) => must(api.PUT("/api/session/address", { body }));

/** Keeps the lines with which the person who is signed in signs messages. */
export const keepSignature = (body: Schemas["SignatureRequest"]) => must(api.PUT("/api/session/signature", { body }));

/** Changes the password of the person who is signed in; everywhere else they are signed out. */
export const changePassword = (body: Schemas["PasswordRequest"]) => must(api.PUT("/api/session/password", { body }));

/** Where the person who is signed in is signed in. */
export const sessionList = () => must(api.GET("/api/sessions"));

/** Signs the person out everywhere else. */
export const endOtherSessions = () => must(api.DELETE("/api/sessions/others"));
