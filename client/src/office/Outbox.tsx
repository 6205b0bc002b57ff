import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import styles from "./office.module.css";

/** What goes out. Without a mail server it stands in for one, as it does for whoever carries text messages: it shows what would have gone, with what it says, a mail as a file for a mail program. */
export function Outbox() {
  const { data: server } = useQuery(ask.mailServer);
  const { data } = useQuery({
    ...ask.outbox,
    // What the mail server takes meanwhile is seen without asking.
    refetchInterval: (query) => (server?.on && query.state.data?.some((m) => m.gone === "") ? 5000 : false),
  });
  const [read, setRead] = useState("");
  const queries = useQueryClient();
  const done = async (asked: Promise<unknown>) => {
    await asked;
    await queries.invalidateQueries({ queryKey: ask.outbox.queryKey });
  };
  if (!data || !server) return null;
  return (
    <section className={`panel ${styles.wide}`} aria-label="Outbox">
      <header>
        <h2>Outbox</h2>
        <span className="note">
          {server.on
            ? "mail goes to your mail server; for text messages this is a stand-in: none leaves this machine; the latest 100"
            : "a stand-in for mail and text messages: nothing leaves this machine; the latest 100"}
        </span>
      </header>
      {data.length === 0 && (
        <p className="pad note">
          Nothing was sent by mail or text message yet. A proposal is sent from its job, under Revisions, and an order
          under Buying.
        </p>
      )}
      <ul className={styles.outbox} aria-label="Mails">
        {data.map((mail) => {
          const byText = mail.way === "text";
          const what = byText ? "Text message" : mail.subject;
          return (
            <li key={mail.id}>
              <span className="note">{mail.at}</span>
              <span>
                <b>{what}</b>
                <small>
                  {mail.copy ? "copy to" : "to"} {mail.to}
                </small>
              </span>
              <Link to={`/jobs/${mail.job}/${mail.view ? `deliver?view=${mail.view}` : "proposal?view=revisions"}`}>
                {mail.jobName}, {mail.brings}
              </Link>
              <span className={styles.ends}>
                <button
                  className="act"
                  aria-expanded={read === mail.id}
                  aria-label={`Read ${what} to ${mail.to}`}
                  onClick={() => setRead(read === mail.id ? "" : mail.id)}
                >
                  {read === mail.id ? "Close" : "Read"}
                </button>
                {!byText && (
                  <a href={`/api/outbox/${mail.id}/file`} download aria-label={`File of ${mail.subject} to ${mail.to}`}>
                    File
                  </a>
                )}
              </span>
              <small className={styles.gone}>
                {mail.gone !== "" ? (
                  `gone ${mail.gone}${mail.hasLink ? "; its link is cut out" : ""}`
                ) : (
                  <>
                    {mail.waits && <span className="error">waits: {mail.waits} </span>}
                    {server.on && !byText && (
                      <button
                        className="act"
                        aria-label={`Send ${what} to ${mail.to} now`}
                        onClick={() => void done(change.mailNow(mail.id))}
                      >
                        Send it now
                      </button>
                    )}{" "}
                    <button
                      className="act"
                      aria-label={`${what} to ${mail.to} has gone`}
                      title="You have taken it along and sent it yourself. Its link is not kept here any longer."
                      onClick={() => void done(change.mailGone(mail.id))}
                    >
                      It has gone
                    </button>
                  </>
                )}
              </small>
              {read === mail.id && (
                <div className={styles.letter}>
                  {!byText && (
                    <p className="note">
                      from {mail.from}, with {mail.attached.join("; ")}
                    </p>
                  )}
                  <p>{mail.words}</p>
                </div>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
