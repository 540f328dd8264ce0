import { vi } from "vitest";

/** A request that was made. */
export interface Sent {
  method: string;
  /** Its path, without the query. */
  path: string;
  query: URLSearchParams;
  body: unknown;
}

type Answer = (sent: Sent) => unknown;

/**
 * Answers requests in place of the server, by method and path: `"GET /api/books/1"`. An answer is sent as JSON, or as the end of a
 * long work where that was asked for; a `Response` goes as it is. Whatever has no answer here is not found.
 * @returns What was sent, in its order.
 */
export function serve(answers: Record<string, Answer>): Sent[] {
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (input: RequestInfo | URL, init?: RequestInit) => {
    const request = input instanceof Request ? input : new Request(input, { ...init, signal: null });
    const url = new URL(request.url);
    const text = await request.text();
    const one = {
      method: request.method,
      path: url.pathname,
      query: url.searchParams,
      body: text === "" ? undefined : (JSON.parse(text) as unknown),
    };
    sent.push(one);
    const answer = answers[`${one.method} ${one.path}`];
    const given = answer ? await answer(one) : refuse(404, `There is no ${one.path}.`);
    if (given instanceof Response) {
      return given;
    }
    return request.headers.get("Accept") === "text/event-stream"
      ? new Response(`event: done\ndata: ${JSON.stringify(given)}\n\n`)
      : Response.json(given);
  });
  return sent;
}

/** What the server says where it does not do as it was asked (RFC 9457). */
export const refuse = (status: number, detail: string) =>
  Response.json({ status, detail }, { status, headers: { "Content-Type": "application/problem+json" } });
