import { Button } from "@mui/material";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import links from "../controls/links.module.css";
import { LinkAddress, type LinkMade } from "../controls/LinkAddress";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import { calledIn, shortly } from "./called";
import { useRevisionsTold } from "./useRevisionsTold";

type Revision = Schemas["RevisionView"];
type Link = Schemas["LinkView"];

/** Who can open the customer's page of a revision, and who has. */
export function Links({ revision, outside }: { revision: Revision; outside: boolean }) {
  const [, { job }] = useJob();
  const [making, setMaking] = useState("");
  const [made, setMade] = useState<LinkMade | null>(null);
  const [revoking, setRevoking] = useState<{ link: Link; fact: string } | null>(null);
  const told = useRevisionsTold();
  return (
    <section className="panel" aria-label={`Customer page of ${shortly(revision)}`}>
      <header>
        <h2>Customer page of {shortly(revision)}</h2>
        <a
          className="note"
          href={`/outside/index.html?job=${job.id}&revision=${revision.id}`}
          target="_blank"
          rel="noreferrer"
        >
          Look at it
        </a>
      </header>
      <ul className={links.links} aria-label="Links">
        {revision.links.map((link) => (
          <li key={link.id} className={link.state === "open" ? "" : links.shut}>
            <span>
              <b>{link.for}</b>
              <small>
                {link.signs ? "" : "a copy · "}
                {link.says}
              </small>
            </span>
            {link.state === "open" && (
              <button
                type="button"
                className="act"
                aria-label={`Revoke the link of ${link.for}`}
                onClick={() => setRevoking({ link, fact: newId() })}
              >
                Revoke
              </button>
            )}
          </li>
        ))}
      </ul>
      <div className="pad">
        {revision.links.length === 0 && <p className="note">Nobody has a link to it yet.</p>}
        {!outside ? (
          <p className="note">
            People outside cannot open it: the program was started without <b>--public</b>.
          </p>
        ) : (
          revision.may.includes("sentAgain") && (
            <Button variant="outlined" onClick={() => setMaking(newId())}>
              New link
            </Button>
          )
        )}
      </div>
      {making && <NewLink revision={revision} fact={making} onMade={setMade} onClose={() => setMaking("")} />}
      {made && <LinkAddress made={made} onClose={() => setMade(null)} />}
      {revoking && (
        <Ask
          title={`Revoke the link of ${revoking.link.for}`}
          apply="Revoke it"
          width="xs"
          onApply={() => change.revokeLink(job.id, revision.id, revoking.link.id, revoking.fact).then(told)}
          onClose={() => setRevoking(null)}
        >
          <p className="note">It opens nothing from then on, for good. Other links to {shortly(revision)} stay.</p>
        </Ask>
      )}
    </section>
  );
}

/** Makes a link by hand. */
function NewLink(props: { revision: Revision; fact: string; onMade: (made: LinkMade) => void; onClose: () => void }) {
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const [who, setWho] = useState("");
  const [signs, setSigns] = useState<"signs" | "copy">("signs");
  const [wrong, setWrong] = useState("");
  const make = async () => {
    const link = { fact: props.fact, for: who.trim(), signs: signs === "signs" };
    const { address } = await change.makeLink(job.id, props.revision.id, link);
    props.onMade({ who: who.trim(), address });
    await told();
  };
  return (
    <Ask
      title={`New link to ${calledIn(props.revision)}`}
      apply="Make the link"
      ready={who.trim() !== ""}
      onApply={make}
      onRefused={(error) => {
        setWrong(error.message);
        return true;
      }}
      onClose={props.onClose}
    >
      <Input
        label="Whom it is for"
        placeholder="Ida Marrow"
        focus
        maxLength={254}
        value={who}
        wrong={wrong}
        hint="one person, one link: so you see who has looked"
        onType={setWho}
      />
      <Radios
        label="What they may do"
        value={signs}
        options={[
          { value: "signs", words: "Decide", small: "read, ask, decline" },
          { value: "copy", words: "Have a copy", small: "read and ask; whether they looked is not recorded" },
        ]}
        onChoose={setSigns}
      />
    </Ask>
  );
}
