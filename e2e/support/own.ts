/** A server of a test's own, to be stopped and started again. */
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { ROOT } from "./aim";

export class OwnServer {
  readonly address: string;
  readonly data: string;
  private serving: ChildProcess | null = null;

  constructor(
    readonly port: number,
    /** What `bright-angle serve` is told besides. */
    readonly options: string[] = [],
  ) {
    this.address = `http://127.0.0.1:${port}`;
    this.data = mkdtempSync(join(tmpdir(), "bright-angle-own-"));
    // PostgreSQL may run as another user than the tests.
    chmodSync(this.data, 0o755);
  }

  async health(): Promise<number> {
    try {
      return (await fetch(`${this.address}/api/health`)).status;
    } catch {
      return 0;
    }
  }

  async start(): Promise<void> {
    this.serving = spawn(
      `${ROOT}tools/serve`,
      [`${ROOT}target/debug/bright-angle`, String(this.port), this.data, "--", ...this.options],
      {
        stdio: ["ignore", "ignore", "inherit"],
        env: { ...process.env, BRIGHT_ANGLE_LOOKS_EVERY: "1" },
      },
    );
    await expect.poll(() => this.health(), { timeout: 60_000 }).toBe(200);
  }

  /** Ends whoever looks after the servers, without a word. */
  kill(): void {
    this.serving?.kill("SIGKILL");
  }

  async stop(): Promise<void> {
    const serving = this.serving;
    this.serving = null;
    if (!serving || serving.exitCode !== null || serving.signalCode !== null) return;
    const ended = new Promise((settle) => serving.on("exit", settle));
    serving.kill("SIGTERM");
    await ended;
  }

  /** Stops all of it and forgets what it kept. */
  async end(): Promise<void> {
    await this.stop();
    execFileSync(`${ROOT}tools/cluster`, ["stop", `${this.data}/postgres`]);
    rmSync(this.data, { recursive: true, force: true });
  }
}
