import { api, must, type Schemas } from "../../shared/api/client";

/** The mail accounts of the book. */
export const senderList = (book: number) => must(api.GET("/api/books/{book}/senders", { params: { path: { book } } }));

/** The mailbox that reports on a sender's messages are fetched from. */
export const replyMailbox = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/senders/{id}/replies", { params: { path: { book, id } } }));

/** Keeps a sender's mailbox for replies. */
export const keepReplyMailbox = (book: number, id: number, body: Schemas["ReplyMailboxRequest"]) =>
  must(api.PUT("/api/books/{book}/senders/{id}/replies", { params: { path: { book, id } }, body }));

/** Fetches from a sender's mailbox no longer. */
export const endReplyMailbox = (book: number, id: number) =>
  must(api.DELETE("/api/books/{book}/senders/{id}/replies", { params: { path: { book, id } } }));

/** Fetches from a sender's mailbox now. */
export const fetchReplies = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/senders/{id}/replies/fetch", { params: { path: { book, id } } }));

/** Adds a mail account. */
export const addSender = (book: number, body: Schemas["SenderSettings"]) =>
  must(api.POST("/api/books/{book}/senders", { params: { path: { book } }, body }));

/** Saves a mail account. */
export const saveSender = (book: number, id: number, body: Schemas["SenderSettings"]) =>
  must(api.PUT("/api/books/{book}/senders/{id}", { params: { path: { book, id } }, body }));

/** Tries whether a mail account can send. */
export const trySender = (book: number, id: number, body: Schemas["SenderSettings"]) =>
  must(api.POST("/api/books/{book}/senders/{id}/try", { params: { path: { book, id } }, body }));
