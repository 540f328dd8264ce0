import { api, must, type Schemas } from "../../shared/api/client";

/** The rounds released by the person who is signed in that have ended since they last looked. */
export const endedRounds = (book: number) =>
  must(api.GET("/api/books/{book}/rounds/ended", { params: { path: { book } } }));

/** Notes that the end of a round was seen. */
export const seenEnded = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/rounds/{id}/seen", { params: { path: { book, id } } }));

/** Makes a round. */
export const makeRound = (book: number, body: Schemas["NewRound"]) =>
  must(api.POST("/api/books/{book}/rounds", { params: { path: { book } }, body }));

/** A part of the list of rounds: those before a round, the newest first. */
export const roundList = (book: number, before: number | undefined, about: string | undefined) =>
  must(api.GET("/api/books/{book}/rounds", { params: { path: { book }, query: { before, about } } }));

/** A round as it is now. */
export const roundOf = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/rounds/{id}", { params: { path: { book, id } } }));

/** Whether a round is newer than what is shown. */
export const roundRevision = (book: number, id: number, revision: number, preparedAt: string | undefined) =>
  must(
    api.GET("/api/books/{book}/rounds/{id}/revision", {
      params: { path: { book, id }, query: { revision, preparedAt } },
    }),
  );

/** Notes that a parcel was looked at. */
export const lookedAt = (book: number, id: number, body: Schemas["LookedAtRequest"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/looked-at", { params: { path: { book, id } }, body }));

/** What a choice would come to. */
export const countRound = (book: number, id: number, body: Schemas["RoundRequest"]) =>
  must<Schemas["CountView"] | undefined>(
    api.POST("/api/books/{book}/rounds/{id}/count", { params: { path: { book, id } }, body }),
  );

/** Decides the same about customers of a round. */
export const decideOnCustomers = (book: number, id: number, revision: number, body: Schemas["DecisionRequest"]) =>
  must(
    api.POST("/api/books/{book}/rounds/{id}/decisions", { params: { path: { book, id }, query: { revision } }, body }),
  );

/** Releases a round. */
export const releaseRound = (book: number, id: number, body: Schemas["ReleaseRequest"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/release", { params: { path: { book, id } }, body }));

/** Where a customer's items end. */
export const accountOf = (book: number, id: number, customer: string) =>
  must(api.GET("/api/books/{book}/rounds/{id}/accounts/{customer}", { params: { path: { book, id, customer } } }));

/** Decides on one item of a customer in a round. */
export const decideOnItem = (book: number, id: number, revision: number, body: Schemas["ItemDecisionRequest"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/items", { params: { path: { book, id }, query: { revision } }, body }));

/** Holds an item back from every round until a day. */
export const holdItem = (book: number, body: Schemas["HoldRequest"]) =>
  must(api.POST("/api/books/{book}/items/holds", { params: { path: { book } }, body }));

/** Holds an item back no longer. */
export const endItemHold = (book: number, body: Schemas["ItemRequest"]) =>
  must(api.POST("/api/books/{book}/items/holds/end", { params: { path: { book } }, body }));

/** Sets a payment against items. */
export const settleItem = (book: number, body: Schemas["SettleRequest"]) =>
  must(api.POST("/api/books/{book}/items/settlements", { params: { path: { book } }, body }));

/** Takes back what was set against items. */
export const takeSettlementBack = (book: number, settlement: number) =>
  must(
    api.POST("/api/books/{book}/items/settlements/{settlement}/take-back", { params: { path: { book, settlement } } }),
  );

/** The values of a column of the files, to choose by. */
export const columnValues = (book: number, id: number, column: string) =>
  must(api.GET("/api/books/{book}/rounds/{id}/values", { params: { path: { book, id }, query: { column } } }));

/** The choices that were saved under a name. */
export const savedChoices = (book: number) =>
  must(api.GET("/api/books/{book}/choices", { params: { path: { book } } }));

/** Uses a saved choice in a round. */
export const applyChoice = (book: number, id: number, choice: number, revision: number) =>
  must(
    api.POST("/api/books/{book}/rounds/{id}/choices/{choice}", {
      params: { path: { book, id, choice }, query: { revision } },
    }),
  );

/** Saves a round's choice under a name. */
export const saveChoice = (book: number, id: number, body: Schemas["SaveChoiceRequest"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/choices", { params: { path: { book, id } }, body }));

/** Forgets a saved choice. */
export const forgetChoice = (book: number, choice: number) =>
  must(api.DELETE("/api/books/{book}/choices/{choice}", { params: { path: { book, choice } } }));

/** The next parcel that changed since it was looked at. */
export const nextChanged = (book: number, id: number, after: number) =>
  must(
    api.GET("/api/books/{book}/rounds/{id}/parcels/next-changed", { params: { path: { book, id }, query: { after } } }),
  );

/** A part of a round's parcels. */
export const parcelPart = (book: number, id: number, from: number, find: string) =>
  must(api.GET("/api/books/{book}/rounds/{id}/parcels", { params: { path: { book, id }, query: { from, find } } }));

/** Where a customer stands in a round's list. */
export const parcelPlace = (book: number, id: number, customer: string, find: string) =>
  must(
    api.GET("/api/books/{book}/rounds/{id}/parcels/place", {
      params: { path: { book, id }, query: { customer, find } },
    }),
  );

/** A part of what a round leaves out. */
export const leftOutPart = (book: number, id: number, from: number, most?: number) =>
  must(api.GET("/api/books/{book}/rounds/{id}/left-out", { params: { path: { book, id }, query: { from, most } } }));

/** The parcels of a part of a round's list, to be marked. */
export const parcelKeys = (book: number, id: number, find: string, from: number, most: number | undefined) =>
  must(
    api.GET("/api/books/{book}/rounds/{id}/parcels/keys", {
      params: { path: { book, id }, query: { find, from, most } },
    }),
  );

/** What marked parcels come to. */
export const markedSum = (book: number, id: number, parcels: number[]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/parcels/marked", { params: { path: { book, id } }, body: { parcels } }));

/** The addresses that a parcel's message may be sent to. */
export const suggestedAddresses = (book: number, parcel: number) =>
  must(api.GET("/api/books/{book}/parcels/{parcel}/addresses", { params: { path: { book, parcel } } }));

/** Changes one parcel, and none of the others. */
export const changeParcel = (book: number, parcel: number, revision: number, body: Schemas["ParcelChangeRequest"]) =>
  must(
    api.PUT("/api/books/{book}/parcels/{parcel}/change", {
      params: { path: { book, parcel }, query: { revision } },
      body,
    }),
  );

/** Sets whom the messages of a parcel's customer go to, for good. */
export const setRecipientsForGood = (
  book: number,
  parcel: number,
  revision: number,
  body: Schemas["RecipientsRequest"],
) =>
  must(
    api.PUT("/api/books/{book}/parcels/{parcel}/recipients-for-good", {
      params: { path: { book, parcel }, query: { revision } },
      body,
    }),
  );

/** What can be rehearsed of a round, and what was. */
export const rehearsalsOf = (book: number, id: number) =>
  must(api.GET("/api/books/{book}/rounds/{id}/rehearsals", { params: { path: { book, id } } }));

/** Sends parcels of a round to an address of one's own. */
export const rehearse = (book: number, id: number, revision: number, body: Schemas["RehearsalRequest"]) =>
  must(
    api.POST("/api/books/{book}/rounds/{id}/rehearsals", { params: { path: { book, id }, query: { revision } }, body }),
  );

/** Notes that one has looked at a message of a rehearsal, or at all of them. */
export const lookedAtRehearsal = (book: number, id: number, rehearsal: number, body: Schemas["RehearsalLookRequest"]) =>
  must(
    api.POST("/api/books/{book}/rounds/{id}/rehearsals/{rehearsal}/looked-at", {
      params: { path: { book, id, rehearsal } },
      body,
    }),
  );

/** Tries a parcel once more. */
export const retryParcel = (book: number, parcel: number) =>
  must(api.POST("/api/books/{book}/parcels/{parcel}/retry", { params: { path: { book, parcel } } }));

/** A parcel with its message. */
export const parcelOf = (book: number, parcel: number) =>
  must(api.GET("/api/books/{book}/parcels/{parcel}", { params: { path: { book, parcel } } }));

/** Says whether a parcel of which that is unsure went. */
export const settleUnsure = (book: number, parcel: number, body: Schemas["UnsureRequest"]) =>
  must(api.POST("/api/books/{book}/parcels/{parcel}/unsure", { params: { path: { book, parcel } }, body }));

/** What a release would do. */
export const releaseSummary = (book: number, id: number, body: Schemas["SummaryRequest"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/summary", { params: { path: { book, id } }, body }));

/** Asks somebody else to release a round. */
export const requestRelease = (book: number, id: number, body: Schemas["AskedRelease"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/release-request", { params: { path: { book, id } }, body }));

/** Makes a round of what did not go. */
export const restRound = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/rounds/{id}/rest", { params: { path: { book, id } } }));

/** Pauses the sending of a round, or goes on with it. */
export const pauseRound = (book: number, id: number, body: Schemas["PauseRequest"]) =>
  must(api.POST("/api/books/{book}/rounds/{id}/pause", { params: { path: { book, id } }, body }));

/** Says that the messages that were exported went. */
export const exportedWent = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/rounds/{id}/exported-went", { params: { path: { book, id } } }));

/** Stops what has not gone yet. */
export const stopRound = (book: number, id: number) =>
  must(api.POST("/api/books/{book}/rounds/{id}/stop", { params: { path: { book, id } } }));

/** The rounds that wait for somebody. */
export const waitingRounds = (book: number) =>
  must(api.GET("/api/books/{book}/rounds/waiting", { params: { path: { book } } }));

/** Where on the pages of a parcel’s statement stands what was taken from the ledger or a card. */
export const placesOf = (book: number, parcel: number) =>
  must(api.GET("/api/books/{book}/parcels/{parcel}/places", { params: { path: { book, parcel } } }));

/** The cell of the ledger file that something in a parcel was read from. */
export const sourceOf = (book: number, parcel: number, from: string) =>
  must(api.GET("/api/books/{book}/parcels/{parcel}/source", { params: { path: { book, parcel }, query: { from } } }));

/** Puts the cell right that something in a parcel was read from; its round is made up anew. */
export const putSourceRight = (book: number, parcel: number, from: string, becomes: string) =>
  must(
    api.POST("/api/books/{book}/parcels/{parcel}/source", {
      params: { path: { book, parcel }, query: { from } },
      body: { becomes },
    }),
  );

/** What catches the eye in the messages of a round. */
export const remarksOf = (book: number, round: number) =>
  must(api.GET("/api/books/{book}/rounds/{round}/remarks", { params: { path: { book, round } } }));
