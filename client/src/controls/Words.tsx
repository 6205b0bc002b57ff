import { useId, useLayoutEffect, useRef, useState } from "react";
import { Says } from "./Says";
import styles from "./words.module.css";

/** A figure that texts may say by its name. */
export interface Named {
  name: string;
  meaning: string;
}

interface Props {
  label: string;
  value: string;
  /** Figures that are offered when a brace is typed. */
  names: readonly Named[];
  /** Sends what was typed; rejects with what is wrong with it. */
  onKeep: (text: string) => Promise<void>;
  /** Told when it was left with all kept, or backed out of. */
  onLeave?: () => void;
  focus?: boolean;
  /** Where it stands on the page itself: the label is only read out, and it looks like what it becomes. */
  onPage?: boolean;
  /** Plain text: no marks. */
  plain?: boolean;
}

/** The name that is being typed at a place in a text: after a brace that is still open. */
function typing(text: string, at: number): { from: number; word: string } | null {
  const from = text.lastIndexOf("{", at - 1);
  if (from < 0) return null;
  const word = text.slice(from + 1, at);
  return /[{}\n]/.test(word) ? null : { from, word };
}

/**
 * Words over several lines, with marks, that may say figures by name: a brace offers them. Leaving it or Ctrl+Enter keeps what was typed, Esc backs out; a refusal stands beneath and nothing is lost.
 */
export function Words({ label, value, names, onKeep, onLeave, focus, onPage, plain }: Props) {
  const [text, setText] = useState(value);
  const [seen, setSeen] = useState(value);
  const [wrong, setWrong] = useState("");
  const [at, setAt] = useState(0);
  const [row, setRow] = useState(0);
  const [closed, setClosed] = useState(false);
  const area = useRef<HTMLTextAreaElement>(null);
  const id = useId();
  if (value !== seen) {
    // What somebody else wrote is taken where nothing was typed over it.
    if (text === seen) setText(value);
    setSeen(value);
  }
  /** Where the caret is to stand once what was taken is there: before the next key, which may come at once. */
  const caret = useRef<number | null>(null);
  useLayoutEffect(() => {
    const box = area.current!;
    if (caret.current !== null) {
      box.focus();
      box.setSelectionRange(caret.current, caret.current);
      caret.current = null;
    }
    box.style.height = "auto";
    box.style.height = `${box.scrollHeight + 2}px`;
  }, [text]);

  const open = closed ? null : typing(text, at);
  const found = open ? names.filter((n) => n.name.startsWith(open.word.trimStart())) : [];
  const chosen = found[Math.min(row, found.length - 1)];

  async function keep() {
    if (text === value) {
      setWrong("");
      return onLeave?.();
    }
    try {
      await onKeep(text);
      setWrong("");
      onLeave?.();
    } catch (error) {
      setWrong((error as Error).message);
    }
  }
  function take(name: string) {
    const end = text.slice(at).startsWith("}") ? at + 1 : at;
    const now = `${text.slice(0, open!.from)}{${name}}${text.slice(end)}`;
    const to = open!.from + name.length + 2;
    caret.current = to;
    setText(now);
    setAt(to);
    setRow(0);
  }
  return (
    <div className={`${styles.words} ${onPage ? styles.onPage : ""}`}>
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <textarea
        ref={area}
        id={id}
        className={styles.entry}
        rows={onPage ? 1 : 10}
        autoFocus={focus}
        value={text}
        role="combobox"
        aria-autocomplete="list"
        aria-expanded={found.length > 0}
        aria-controls={`${id}names`}
        aria-activedescendant={chosen ? `${id}${chosen.name}` : undefined}
        aria-invalid={wrong !== ""}
        aria-describedby={`${id}says`}
        onChange={(e) => {
          setText(e.target.value);
          setAt(e.target.selectionStart);
          setClosed(false);
          setRow(0);
        }}
        onSelect={(e) => setAt(e.currentTarget.selectionStart)}
        onBlur={() => void keep()}
        onKeyDown={(e) => {
          if (chosen && (e.key === "ArrowDown" || e.key === "ArrowUp")) {
            e.preventDefault();
            const to = Math.min(row, found.length - 1) + (e.key === "ArrowDown" ? 1 : -1);
            setRow((to + found.length) % found.length);
          } else if (chosen && (e.key === "Enter" || e.key === "Tab") && !e.ctrlKey) {
            e.preventDefault();
            take(chosen.name);
          } else if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
            e.preventDefault();
            void keep();
          } else if (e.key === "Escape") {
            e.preventDefault();
            e.stopPropagation();
            if (chosen) return setClosed(true);
            setText(value);
            setWrong("");
            onLeave?.();
          }
        }}
      />
      {found.length > 0 && (
        <div className={styles.names} id={`${id}names`} role="listbox" aria-label="Figures by name">
          {found.map((n) => (
            <div
              key={n.name}
              id={`${id}${n.name}`}
              role="option"
              aria-selected={n === chosen}
              // Pressing it does not leave the text.
              onMouseDown={(e) => {
                e.preventDefault();
                take(n.name);
              }}
            >
              <b>{n.name}</b> {n.meaning}
            </div>
          ))}
        </div>
      )}
      <Says
        id={id}
        wrong={wrong}
        hint={
          plain ? (
            <>
              <kbd>{"{"}</kbd> a figure. Ctrl+Enter keeps, Esc backs out.
            </>
          ) : (
            <>
              An empty line parts paragraphs. <kbd># </kbd>a heading, <kbd>- </kbd>a list, <kbd>*strong*</kbd>,{" "}
              <kbd>_slanted_</kbd>, <kbd>{"{"}</kbd> a figure. Ctrl+Enter keeps, Esc backs out.
            </>
          )
        }
      />
    </div>
  );
}
