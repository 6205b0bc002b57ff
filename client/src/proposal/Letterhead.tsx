import type { Schemas } from "../api/client";
import styles from "./paper.module.css";

/** Who writes, and what it is; `mark` is where the picture of the firm's mark is, empty for none. */
export function Letterhead(props: { head: Schemas["Letterhead"]; brand: Schemas["Brand"]; mark: string }) {
  const { head, brand, mark } = props;
  return (
    <header className={styles.top}>
      <div>
        <strong>{head.firm}</strong>
        {[head.slogan, head.firmAddress, ...brand.head.split("\n")].filter(Boolean).map((line) => (
          <span key={line}>{line}</span>
        ))}
      </div>
      <div>
        {mark && <img className={styles.mark} src={mark} alt={`Mark of ${head.firm}`} />}
        <span className={styles.ink}>{head.reference}</span>
        <span>{head.validity}</span>
      </div>
    </header>
  );
}
