import { ownHeader, Problem, type Schemas } from "./client";

/** How far a long work has come. */
export interface WorkProgress {
  stage: string;
  done: number;
  of: number;
  /** What is counted, in the plural. */
  unit: string;
  perSecond: number;
  secondsLeft: number | null;
}

/** Does a work that may take long, hears how far it has come, and gives what came of it. Aborting the signal stops it. */
export async function work<T>(
  method: "GET" | "POST" | "PUT",
  path: string,
  signal: AbortSignal,
  onProgress: (progress: WorkProgress) => void,
  body?: object,
): Promise<T> {
  const response = await fetch(path, {
    method,
    signal,
    headers: { ...ownHeader, Accept: "text/event-stream", ...(body && { "Content-Type": "application/json" }) },
    body: body && JSON.stringify(body),
  });
  if (!response.ok || !response.body) {
    const answer = (await response.json().catch(() => ({}))) as { detail?: string };
    throw new Problem(answer.detail ?? `The server answered ${response.status}.`, response.status);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) {
      throw new Problem("The connection to the server broke off before it was done. Nothing was kept.", 0);
    }
    text += value;
    for (let end = text.indexOf("\n\n"); end >= 0; end = text.indexOf("\n\n")) {
      const [name, data] = parse(text.slice(0, end));
      text = text.slice(end + 2);
      if (name === "done") {
        return data as T;
      }
      if (name === "problem") {
        const problem = data as { status: number; detail: string };
        throw new Problem(problem.detail, problem.status);
      }
      onProgress(data as WorkProgress);
    }
  }
}

function parse(event: string): [string, unknown] {
  const lines = event.split("\n");
  const of = (field: string) => lines.find((l) => l.startsWith(`${field}: `))?.slice(field.length + 2) ?? "";
  return [of("event"), JSON.parse(of("data"))];
}

export type KeptIntake = Schemas["KeptIntake"];
