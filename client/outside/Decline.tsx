import { useEffect, useRef } from "react";
import styles from "./customer.module.css";
import type { Link, Now, Page } from "./link";
import { Write } from "./Write";

interface Props {
  page: Page;
  link: Link;
  onPage: (now: Now) => void;
  onClose: () => void;
}

/** Says no, with a reason if they want to give one. */
export function Decline({ page, link, onPage, onClose }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  const what = page.statement.isChange ? "change" : "proposal";
  useEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog ref={dialog} className={styles.dialog} aria-labelledby="declining" onClose={onClose}>
      <h2 id="declining">Decline this {what}</h2>
      <p>
        You tell {page.document.head.firm} that you do not want{" "}
        {page.statement.isChange ? "" : `revision ${page.revision} of `}
        {page.document.head.title}. Nobody can accept it after that; you can still ask for it again.
      </p>
      <Write
        label="Why, if you like to say"
        note="Only the firm reads it."
        act="Decline it"
        focus
        onSay={async (says) => {
          onPage(await link.decline(says));
          onClose();
        }}
      />
      <button type="button" className={styles.quiet} onClick={onClose}>
        Back to the {what}
      </button>
    </dialog>
  );
}
