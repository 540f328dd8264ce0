import { api, must, type Query, type Schemas } from "../../shared/api/client";

/** What was with a customer over time. */
export const customerHistory = (book: number, key: string) =>
  must(api.GET("/api/books/{book}/customers/history", { params: { path: { book }, query: { key } } }));

/** Says that an address that mail came back from is good again. */
export const addressIsGood = (book: number, address: string) =>
  must(api.DELETE("/api/books/{book}/customers/returned-address", { params: { path: { book }, query: { address } } }));

/** A customer's card. */
export const customerCard = (book: number, key: string) =>
  must(api.GET("/api/books/{book}/customers/card", { params: { path: { book }, query: { key } } }));

/** Saves a customer's card upon the version that it was edited from. */
export const saveCustomerCard = (book: number, key: string, body: Schemas["CustomerRequest"]) =>
  must(api.PUT("/api/books/{book}/customers/card", { params: { path: { book }, query: { key } }, body }));

/** A part of the list of customers. */
export const customerPart = (book: number, query: Query<"/api/books/{book}/customers">) =>
  must(api.GET("/api/books/{book}/customers", { params: { path: { book }, query } }));
