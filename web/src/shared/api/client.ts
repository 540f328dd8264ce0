import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** What the server said could not be done, in words for the person. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** The header by which the server knows its own pages; without it nothing is changed. */
export const ownHeader = { "X-Rendal": "1" };

export const api = createClient<paths>({ headers: ownHeader });

/** The data of an answer, or a Problem with the server's words. */
export async function must<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await answer;
  if (!response.ok) {
    throw new Problem(detailOf(error) ?? `The server answered ${response.status}.`, response.status);
  }
  return data as T;
}

/** Sends a file as a form, which the generated client does not do. */
export async function upload<T>(path: string, file: File): Promise<T> {
  const form = new FormData();
  form.append("file", file);
  const response = await fetch(path, { method: "POST", body: form, headers: ownHeader });
  const answer: unknown = await response.json().catch(() => undefined);
  if (!response.ok) {
    throw new Problem(detailOf(answer) ?? `The server answered ${response.status}.`, response.status);
  }
  return answer as T;
}

/** A file that the server makes, from what is sent along where something is; the generated client takes JSON alone. */
export async function fileFrom(path: string, sent?: unknown, signal?: AbortSignal): Promise<Blob> {
  const response = await fetch(path, {
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
    throw new Problem(detailOf(answer) ?? `The server answered ${response.status}.`, response.status);
  }
  return response.blob();
}

function detailOf(error: unknown): string | undefined {
  return typeof error === "object" && error !== null && "detail" in error && typeof error.detail === "string"
    ? error.detail
    : undefined;
}
