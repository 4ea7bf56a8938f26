/** Requests to the server, with its errors as values that say what to do about them. */
import { Refused } from "../core/errors";
import type { Conflict, Fault } from "../core/types";

/** The server or its database cannot be reached: try again later, nothing is lost. */
export class Away extends Error {}

/** The server does not have what was asked for. */
export class NotThere extends Refused {}

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
  const faults = Array.isArray(answer) ? (answer as Fault[]) : [];
  throw response.status === 404 ? new NotThere(faults) : new Refused(faults);
}

async function send(method: string, path: string, body: unknown, signal?: AbortSignal): Promise<Response> {
  try {
    return await fetch(path, {
      method,
      // A file goes as it is, everything else as JSON.
      ...(body instanceof Blob
        ? { body }
        : body === undefined
          ? {}
          : { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Away("the server does not answer");
  }
}
