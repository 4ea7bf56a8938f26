/** The solver's and comparer's module. */
import solverUrl from "./made/route_bg.wasm?url";

/** How long it may take to come, ms. */
const START = 60_000;

/** Compiled once; asked for again when it did not come. */
let compiled: Promise<WebAssembly.Module> | null = null;
export function solverModule(): Promise<WebAssembly.Module> {
  compiled ??= WebAssembly.compileStreaming(fetch(solverUrl, { signal: AbortSignal.timeout(START) })).catch(
    (error: unknown) => {
      compiled = null;
      throw error;
    },
  );
  return compiled;
}
