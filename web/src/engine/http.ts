/** Requests to the server, with its errors as values that say what to do about them. */
import type { Conflict, Fault } from "./types";

/** The server or its database cannot be reached: try again later, nothing is lost. */
export class Away extends Error {}

/** The server refused what it was sent, and says where the faults are. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly faults: Fault[],
  ) {
    super(faults.map((fault) => (fault.path ? `${fault.path}: ${fault.message}` : fault.message)).join("\n"));
  }
}

/** Somebody saved in between. */
export class Stale extends Error {
  constructor(readonly conflict: Conflict) {
    super(conflict.message);
  }
}

export async function ask<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const response = await send(method, path, body, signal);
  if (response.status >= 502 && response.status <= 504) throw new Away("the database does not answer");
  let answer: unknown;
  try {
    const json = response.headers.get("Content-Type")?.startsWith("application/json");
    answer = json ? await response.json() : await response.text();
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Away("the answer was cut off");
  }
  if (response.ok) return answer as T;
  if (response.status === 409) throw new Stale(answer as Conflict);
  throw new Refused(response.status, Array.isArray(answer) ? (answer as Fault[]) : []);
}

async function send(method: string, path: string, body: unknown, signal?: AbortSignal): Promise<Response> {
  try {
    return await fetch(path, {
      method,
      // A file goes as it is, everything else as JSON.
      ...(body instanceof Blob ? { body } : body === undefined ? {} : { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Away("the server does not answer");
  }
}
