import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

/** A server of a test's own, which it may stop and start again on the same data and port. */
export class OwnServer {
  private readonly folder = mkdtempSync(join(tmpdir(), "emendum-e2e-"));
  private process: ChildProcess | undefined;
  url = "";

  async start() {
    const root = resolve(__dirname, "../..");
    const server = join(
      root,
      "src/Emendum.Web/bin/Release/net10.0/linux-x64/Emendum.Web.dll",
    );
    const port = this.url ? new URL(this.url).port : "0";
    const started = spawn("dotnet", [
      server,
      "--port",
      port,
      "--data",
      this.folder,
      "--client",
      join(root, "client/dist"),
      "--public",
      "0",
    ]);
    this.process = started;
    process.once("exit", () => started.kill());
    this.url = await new Promise<string>((done, fail) => {
      let said = "";
      started.stdout.on("data", (chunk) => {
        said += String(chunk);
        const address = /http:\/\/[^/]+/.exec(said);
        if (address) done(address[0]);
      });
      started.on("exit", () =>
        fail(new Error(`The server did not start: ${said}`)),
      );
    });
  }

  /** Stops it as Ctrl+C does, and waits until it is gone. */
  async stop() {
    const stopping = this.process!;
    const gone = new Promise((done) => stopping.once("exit", done));
    stopping.kill("SIGINT");
    await gone;
  }

  /** Its data, when it is not wanted any more. */
  remove() {
    rmSync(this.folder, { recursive: true, force: true });
  }
}
