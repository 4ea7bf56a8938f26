/** A worker with the core in it, and the news when it ends: a worker that is gone does not say so itself. */
import coreUrl from "./made/core_bg.wasm?url";
import type { WorkerLike } from "./follower";
import { nextLife, onEnd } from "./life";
import type { FromWorker, Start } from "./messages";

/** How long the core may take to come and be ready, ms: a slow line, and no more. */
const START = 60_000;

let compiled: Promise<WebAssembly.Module> | null = null;

function moduleOf(): Promise<WebAssembly.Module> {
  compiled ??= WebAssembly.compileStreaming(fetch(coreUrl, { signal: AbortSignal.timeout(START) })).catch(
    (error: unknown) => {
      // It is tried again by whoever asks next.
      compiled = null;
      throw error;
    },
  );
  return compiled;
}

export function makeWorker(): WorkerLike {
  const worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
  const life = nextLife();
  const watch = new AbortController();
  const late = setTimeout(() => fell("it did not start"), START);
  const like: WorkerLike = {
    onmessage: null,
    onfall: null,
    postMessage: (message) => worker.postMessage(message),
    terminate() {
      clearTimeout(late);
      watch.abort();
      worker.terminate();
    },
  };
  function fell(why: string): void {
    clearTimeout(late);
    watch.abort();
    like.onfall?.(why);
  }
  worker.onerror = (event) => {
    event.preventDefault();
    fell(event.message || "its program cannot be loaded");
  };
  worker.onmessage = ({ data }: MessageEvent<FromWorker>) => {
    if ("ready" in data) {
      clearTimeout(late);
      if (data.ready) onEnd(life, watch.signal, () => fell("it has ended"));
    } else if ("failed" in data) fell(data.failed);
    else like.onmessage?.({ data });
  };
  moduleOf().then(
    (module) => worker.postMessage({ module, life } satisfies Start),
    (error: unknown) => fell(`it cannot be loaded: ${error instanceof Error ? error.message : String(error)}`),
  );
  return like;
}
