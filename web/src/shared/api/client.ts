import createClient from "openapi-fetch";
import { noteUnreachable } from "./unreachable";
import { basePath } from "../served";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** What a request to read may carry after the question mark. */
export type Query<Path extends keyof paths> = paths[Path] extends { get: { parameters: { query?: infer Asked } } }
  ? NonNullable<Asked>
  : never;

/** What the server said could not be done, in words for the person. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** Whether something failed because the server or its database could not be reached, so that it is worth trying again as it is. */
export const isUnreachable = (error: unknown) =>
  error instanceof Problem && (error.status === 0 || error.status === 503);

const notReached =
  "Rendal cannot be reached at the moment. Nothing that was kept is lost, and what you typed is still here; it goes on by itself when it is back.";

/** A request, whose failure to arrive is a Problem like any other. */
export async function reached(request: Request | string, init?: RequestInit): Promise<Response> {
  try {
    const response = await fetch(request, init);
    if (response.status !== 503) {
      noteUnreachable("");
    }
    return response;
  } catch (error) {
    // The library of the browser says no more than that it failed.
    if (!(error instanceof TypeError)) {
      throw error;
    }
    noteUnreachable(notReached);
    throw new Problem(notReached, 0);
  }
}

/** The Problem that an answer tells of. */
export function problemOf(response: Response, error: unknown): Problem {
  const detail = detailOf(error) ?? `The server answered ${response.status}.`;
  if (response.status === 503) {
    noteUnreachable(detail);
  }
  return new Problem(detail, response.status);
}

/** The header by which the server knows its own pages; without it nothing is changed. */
export const ownHeader = { "X-Rendal": "1" };

export const api = createClient<paths>({ baseUrl: basePath, headers: ownHeader, fetch: reached });

/** The data of an answer, or a Problem with the server's words. */
export async function must<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await answer;
  if (!response.ok) {
    throw problemOf(response, error);
  }
  return data as T;
}

/** Sends a file as a form, which the generated client does not do. */
export async function upload<T>(path: string, file: File): Promise<T> {
  const form = new FormData();
  form.append("file", file);
  const response = await reached(path, { method: "POST", body: form, headers: ownHeader });
  const answer: unknown = await response.json().catch(() => undefined);
  if (!response.ok) {
    throw problemOf(response, answer);
  }
  return answer as T;
}

/** A file that the server makes, from what is sent along where something is; the generated client takes JSON alone. */
export async function fileFrom(path: string, sent?: unknown, signal?: AbortSignal): Promise<Blob> {
  const response = await reached(path, {
    signal: signal ?? null,
    ...(sent === undefined
      ? {}
      : {
          method: "POST",
          body: JSON.stringify(sent),
          headers: { ...ownHeader, "Content-Type": "application/json" },
        }),
  });
  if (!response.ok) {
    const answer: unknown = await response.json().catch(() => undefined);
    throw problemOf(response, answer);
  }
  return response.blob();
}

function detailOf(error: unknown): string | undefined {
  return typeof error === "object" && error !== null && "detail" in error && typeof error.detail === "string"
    ? error.detail
    : undefined;
}
