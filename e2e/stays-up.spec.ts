/** What `./start` runs: what dies is started again, and whoever is killed leaves nothing behind that a second start would trample. */
import { spawn } from "node:child_process";
import { readFileSync, readdirSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { ROOT, demo } from "./support/aim";
import { OwnServer } from "./support/own";

const PORT = 8137;
const AT = `http://127.0.0.1:${PORT}`;

/** The processes whose command line holds a word, by their numbers. */
const running = (word: string): number[] =>
  readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .filter((name) => {
      try {
        return readFileSync(`/proc/${name}/cmdline`, "utf8").replaceAll("\0", " ").includes(word);
      } catch {
        return false;
      }
    })
    .map(Number);

const server = (): number[] => running(`bright-angle serve --port ${PORT}`);

test("what dies comes back, and after kill -9 of all of it a second start has everything", async () => {
  const own = new OwnServer(PORT);
  const { data } = own;
  const healthy = (): Promise<void> => expect.poll(() => own.health(), { timeout: 60_000 }).toBe(200);
  try {
    await own.start();
    const site = demo();
    const made = await fetch(`${AT}/api/sites`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ says: "Test", site }),
    });
    const { site_id } = (await made.json()) as { site_id: string };

    // The server, then the database.
    const [first] = server();
    process.kill(first ?? 0, "SIGKILL");
    await expect.poll(() => server().some((pid) => pid !== first)).toBe(true);
    await healthy();
    const database = (): number[] => running(`postgres -D ${data}`);
    const [killed] = database();
    process.kill(killed ?? 0, "SIGKILL");
    await expect.poll(() => database().some((pid) => pid !== killed)).toBe(true);
    await healthy();

    // Whoever looks after them: they end with it, but for the database, which is taken over.
    own.kill();
    await expect.poll(() => server().length).toBe(0);
    expect(running(`bright-angle-rangefinder --port`).filter((pid) => commandOf(pid).includes(String(PORT)))).toEqual(
      [],
    );
    await own.start();
    const back = (await (await fetch(`${AT}/api/sites/${site_id}`)).json()) as {
      number: number;
      site: { name: string };
    };
    expect([back.number, back.site.name]).toEqual([1, site.name]);
    expect(server().length).toBe(1);

    // A second one on the same data is refused, and the first goes on.
    const refused = spawn(`${ROOT}tools/serve`, [`${ROOT}target/debug/bright-angle`, String(PORT + 20), data]);
    const code = await new Promise((settle) => refused.on("exit", settle));
    expect(code).not.toBe(0);
    await healthy();
  } finally {
    await own.end();
  }
  expect([server(), running(`postgres -D ${data}`)]).toEqual([[], []]);
});

const commandOf = (pid: number): string => readFileSync(`/proc/${pid}/cmdline`, "utf8");
