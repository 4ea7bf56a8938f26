/** Requests to the server, with its errors as values that say what to do about them. */
import { Refused } from "../core/errors";
import type { Conflict, Fault } from "../core/types";
import { useDoor } from "./door";

/** The server or its database cannot be reached, or cannot do it just now: try again later, nothing is lost. */
export class Away extends Error {
  readonly passes = true;
}

/** The site was deleted. */
export class Gone extends Refused {}

/** The server does not have what was asked for. */
export class NotThere extends Refused {}

/** Somebody saved in between. */
export class Stale extends Error {
  constructor(readonly conflict: Conflict) {
    super(conflict.message);
  }
}

/** The desk does not know this device, or not any more: what is made here waits until it is paired again. */
export class NotPaired extends Away {}

/** How long an answer may take, ms, whole; and so much more for each kB that is sent: a slow line. */
const LONGEST = 20_000;
const PER_KB = 50;
/** How long it may take where the server reads a drawing or a data sheet first, ms. */
export const READS_LONG = 90_000;

export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
  longest = LONGEST,
  heard?: (headers: Headers) => void,
): Promise<T> {
  const sent = body === undefined || body instanceof Blob ? body : JSON.stringify(body);
  // An answer that never comes is no answer: who waits for ever cannot try again.
  const limit = new AbortController();
  const over = (): void => limit.abort();
  const timer = setTimeout(over, longest + ((sent instanceof Blob ? sent.size : (sent?.length ?? 0)) / 1024) * PER_KB);
  signal?.addEventListener("abort", over);
  if (signal?.aborted) over();
  try {
    const response = await send(method, path, sent, limit.signal, signal);
    heard?.(response.headers);
    return await answered<T>(response, signal);
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener("abort", over);
  }
}

/** What an answer brings, or says to do. */
async function answered<T>(response: Response, signal?: AbortSignal): Promise<T> {
  let answer: unknown;
  try {
    const kind = response.headers.get("Content-Type") ?? "";
    answer = kind.startsWith("application/json")
      ? await response.json()
      : kind.startsWith("image/") || kind.startsWith("application/pdf")
        ? await response.blob()
        : await response.text();
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Away("the answer was cut off");
  }
  useDoor.setState({ paired: response.status !== 401 });
  if (response.ok) return answer as T;
  if (response.status === 409 && !Array.isArray(answer)) throw new Stale(answer as Conflict);
  const said = Array.isArray(answer) ? (answer as Fault[]) : [];
  const faults = said.length > 0 ? said : [{ path: "", message: reasonOf(response.status) }];
  if (response.status === 401) throw new NotPaired("this device is not paired, or not any more");
  if (passes(response.status)) throw new Away(said[0]?.message ?? "the server does not answer as it should");
  if (response.status === 410) throw new Gone(faults);
  throw response.status === 404 ? new NotThere(faults) : new Refused(faults);
}

/** What is said of an answer that brings no reason of its own. */
const reasonOf = (status: number): string =>
  status === 404 ? "the server does not have it" : `the server refuses it and says no reason (${status})`;

/** Whether what is wrong lies with the server or the way to it, and not with what was sent: it may go well the next time. */
const passes = (status: number): boolean => [408, 425, 429].includes(status) || status >= 500;

async function send(
  method: string,
  path: string,
  body: Blob | string | undefined,
  limit: AbortSignal,
  signal?: AbortSignal,
): Promise<Response> {
  try {
    return await fetch(path, {
      method,
      signal: limit,
      // A file goes as it is, everything else as JSON.
      ...(body === undefined ? {} : { body }),
      ...(typeof body === "string" ? { headers: { "Content-Type": "application/json" } } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Away("the server does not answer");
  }
}
