import { Button } from "@mui/material";
import { useState } from "react";
import { Ask } from "./Ask";
import styles from "./ask.module.css";

/** A link that was made, and for whom. */
export interface LinkMade {
  who: string;
  address: string;
}

/** The address of a link that was just made; nobody is shown it again. */
export function LinkAddress({ made, onClose }: { made: LinkMade; onClose: () => void }) {
  const [copied, setCopied] = useState(false);
  const copy = () => void navigator.clipboard.writeText(made.address).then(() => setCopied(true));
  return (
    <Ask title={`The link of ${made.who}`} onClose={onClose}>
      <p className={styles.address}>
        <a href={made.address} target="_blank" rel="noreferrer">
          {made.address}
        </a>
      </p>
      <p>
        <Button variant="contained" onClick={copy}>
          Copy the address
        </Button>{" "}
        <span role="status" className="note">
          {copied && "It is copied."}
        </span>
      </p>
      <p className="note">
        It is shown this once: nobody here can look it up again. Whoever has it can open the page, for a year or until
        you revoke it.
      </p>
    </Ask>
  );
}
