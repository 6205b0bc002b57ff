import { useId } from "react";
import styles from "./field.module.css";

interface Props {
  label: string;
  /** Endings or media types that are offered. */
  accept: string;
  onFile: (file: File) => void;
  /** Id of what says how it goes. */
  says?: string;
}

/** A file of this machine. The same can be chosen again. */
export function FileChoice({ label, accept, onFile, says }: Props) {
  const id = useId();
  return (
    <div className={styles.field}>
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        type="file"
        accept={accept}
        aria-describedby={says}
        onClick={(e) => (e.currentTarget.value = "")}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
        }}
      />
    </div>
  );
}
