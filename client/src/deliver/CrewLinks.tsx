import { Button } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Input } from "../controls/Input";
import links from "../controls/links.module.css";
import { LinkAddress, type LinkMade } from "../controls/LinkAddress";
import { toggled } from "../controls/toggled";
import styles from "./deliver.module.css";
import { useDeliver } from "./useDeliver";

/** Who has the order on their telephone. */
export function CrewLinks({ data }: { data: Schemas["DeliverView"] }) {
  const { job, did } = useDeliver();
  const [making, setMaking] = useState("");
  const [made, setMade] = useState<LinkMade | null>(null);
  const [revoking, setRevoking] = useState<Schemas["CrewLinkView"] | null>(null);
  return (
    <section className="panel" aria-label="Crews' pages">
      <header>
        <h2>Crews&apos; pages</h2>
        <span className="note">tick and write hours, no price</span>
      </header>
      <ul className={links.links} aria-label="Links of crews">
        {data.links.map((link) => (
          <li key={link.id} className={link.state === "open" ? undefined : links.shut}>
            <span>
              <b>{link.for}</b>
              <small>
                {link.about} · {link.state === "open" ? link.made : link.state}
              </small>
            </span>
            {link.state === "open" && (
              <a
                className="act"
                href={`/outside/crew.html?job=${job.id}&link=${link.id}`}
                target="_blank"
                rel="noreferrer"
                aria-label={`Look at the page of ${link.for}`}
              >
                Look
              </a>
            )}
            {link.state === "open" && (
              <button
                type="button"
                className="act"
                aria-label={`Revoke the link of ${link.for}`}
                onClick={() => setRevoking(link)}
              >
                Revoke
              </button>
            )}
          </li>
        ))}
      </ul>
      <div className="pad">
        {data.links.length === 0 && <p className="note">No crew has a link yet.</p>}
        {data.outside ? (
          <Button variant="outlined" onClick={() => setMaking(newId())}>
            New link
          </Button>
        ) : (
          <p className="note">
            People outside cannot open it: the program was started without <b>--public</b>.
          </p>
        )}
      </div>
      {making && <NewCrewLink id={making} sections={data.sections} onMade={setMade} onClose={() => setMaking("")} />}
      {made && <LinkAddress made={made} onClose={() => setMade(null)} />}
      {revoking && (
        <Ask
          title={`Revoke the link of ${revoking.for}`}
          apply="Revoke it"
          width="xs"
          onApply={() => did(change.revokeCrewLink(job.id, revoking.id))}
          onClose={() => setRevoking(null)}
        >
          <p className="note">It opens nothing from then on, for good. What came by it stays.</p>
        </Ask>
      )}
    </section>
  );
}

interface NewProps {
  id: string;
  sections: readonly string[];
  onMade: (made: LinkMade) => void;
  onClose: () => void;
}

function NewCrewLink({ id, sections, onMade, onClose }: NewProps) {
  const { job } = useDeliver();
  const queries = useQueryClient();
  const [who, setWho] = useState("");
  const [about, setAbout] = useState<ReadonlySet<string>>(new Set());
  const [wrong, setWrong] = useState("");
  const named = sections.filter((s) => s !== "");
  const make = async () => {
    const { address } = await change.makeCrewLink(job.id, { id, for: who.trim(), sections: [...about] });
    onMade({ who: who.trim(), address });
    await queries.invalidateQueries({ queryKey: askJob.deliver(job).queryKey });
  };
  return (
    <Ask
      title="New link to the work order"
      apply="Make the link"
      ready={who.trim() !== ""}
      onApply={make}
      onRefused={(error) => {
        setWrong(error.message);
        return true;
      }}
      onClose={onClose}
    >
      <Input
        label="Whom it is for"
        placeholder="Idris"
        focus
        maxLength={80}
        value={who}
        wrong={wrong}
        hint="a person, a crew or another firm; their name stands beside what they tick and write"
        onType={setWho}
      />
      {named.length > 1 && (
        <fieldset className={styles.about}>
          <legend>Only these sections; none for all of it</legend>
          {named.map((section) => (
            <Check key={section} on={about.has(section)} onTick={() => setAbout(toggled(about, section))}>
              {section}
            </Check>
          ))}
        </fieldset>
      )}
    </Ask>
  );
}
