import { Button } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import { useTold } from "../controls/useTold";
import { wholeOr } from "../controls/wholeOr";
import styles from "./office.module.css";

/** The server that takes the firm's mail, in the place of the stand-in. */
export function MailServer() {
  const queries = useQueryClient();
  const { data: server } = useQuery(ask.mailServer);
  const { data: hasPassword } = useQuery(ask.mailPassword);
  const [password, setPassword] = useState("");
  const [wrong, told] = useTold();
  const [tried, setTried] = useState("");
  if (!server || hasPassword === undefined) return null;
  const keep = async (part: Partial<typeof server>) => {
    setTried("");
    try {
      await change.mailServer({ was: server, now: { ...server, ...part } });
    } finally {
      await queries.invalidateQueries(ask.mailServer);
      await queries.invalidateQueries({ queryKey: ["message"] });
    }
  };
  const keepPassword = async (typed: string) => {
    await change.mailPassword(typed);
    setPassword("");
    setTried("");
    await queries.invalidateQueries(ask.mailPassword);
  };
  return (
    <section className={`panel ${styles.wide}`} aria-label="Mail server">
      <header>
        <h2>Mail server</h2>
        <span className="note">{server.on ? "mail goes there by itself" : "off: mail waits in the outbox"}</span>
      </header>
      <div className="pad">
        <div className={styles.pair}>
          <Field
            label="Server (SMTP)"
            hint="like mail.example.com; whoever keeps your mail says which"
            value={server.host}
            onKeep={(host) => keep({ host: host.trim() })}
          />
          <Field label="Port" value={String(server.port)} onKeep={(port) => keep({ port: wholeOr(port) as number })} />
          <Choice
            label="Encryption"
            value={server.security}
            options={[
              ["tls", "from the beginning (usually port 465)"],
              ["startTls", "after the greeting (usually port 587)"],
              ["none", "none: a server on this machine"],
            ]}
            onChoose={(security) => told(keep({ security }))}
          />
          <Field label="Name to sign in with" value={server.user} onKeep={(user) => keep({ user: user.trim() })} />
          <form
            onSubmit={(e) => {
              e.preventDefault();
              told(keepPassword(password));
            }}
          >
            <Input
              label="Password"
              type="password"
              hint={
                hasPassword
                  ? "there is one; it is shown to nobody. Another takes its place"
                  : "kept encrypted, with a key that is in no backup"
              }
              value={password}
              onType={setPassword}
            />
            <p>
              <button type="submit" className="act" disabled={password === ""}>
                Keep the password
              </button>{" "}
              {hasPassword && (
                <button type="button" className="act" onClick={() => told(keepPassword(""))}>
                  Forget it
                </button>
              )}
            </p>
          </form>
          <div>
            <Check on={server.on} onTick={(on) => told(keep({ on }))}>
              Take mail there by itself
            </Check>
            <p>
              <Button
                variant="outlined"
                disabled={server.host === ""}
                onClick={() => {
                  setTried("Asking the server …");
                  change.tryMailServer().then(
                    (answer) => setTried(answer.says),
                    (error: Error) => setTried(error.message),
                  );
                }}
              >
                Send a mail to ourselves
              </Button>
            </p>
            <p role="status">{tried}</p>
          </div>
        </div>
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </div>
    </section>
  );
}
