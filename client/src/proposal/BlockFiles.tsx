import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { FileAct } from "../controls/FileAct";
import { useTold } from "../controls/useTold";
import { ownFiles } from "./filesContext";
import styles from "./proposal.module.css";
import type { BlocksDo, Held } from "./useBlocks";

type File_ = Schemas["BlockFile"];

const pictures = "image/png,image/jpeg,image/webp";

/** The pictures or the attachments of a block: brought in, named, put in order, taken away. */
export function BlockFiles({ held, does }: { held: Held; does: BlocksDo }) {
  const [wrong, said] = useTold();
  const [coming, setComing] = useState(0);
  const [over, setOver] = useState(false);
  const list = useRef<HTMLUListElement>(null);
  const moved = useRef<{ at: number; by: -1 | 1 } | null>(null);
  const files = held.files ?? [];
  const ofPictures = held.kind === "pictures";
  const none = ofPictures ? "not a PNG, JPEG or WebP picture." : "neither a PDF nor a PNG, JPEG or WebP picture.";
  const keep = (now: readonly File_[]) => does.set(held, "files", now);

  async function bring(brought: readonly File[]) {
    setComing(brought.length);
    try {
      const more: File_[] = [];
      const left: string[] = [];
      for (const file of brought) {
        const kept = await change.keepFile(file);
        if (!kept.width && (ofPictures || kept.type !== "application/pdf")) left.push(file.name);
        else
          more.push({
            file: kept.hash,
            words: ofPictures ? "" : file.name,
            width: kept.width ?? 0,
            height: kept.height ?? 0,
          });
      }
      if (more.length > 0) await keep([...files, ...more]);
      if (left.length > 0) throw new Error(`${left.join(", ")} ${left.length > 1 ? "are" : "is"} ${none}`);
    } finally {
      setComing(0);
    }
  }

  async function move(at: number, by: -1 | 1) {
    const now = [...files];
    now.splice(at + by, 0, ...now.splice(at, 1));
    moved.current = { at: at + by, by };
    try {
      await keep(now);
    } catch (refused) {
      moved.current = null;
      throw refused;
    }
  }

  // The key stays under the hand: the same act of the same file, where it stands now; the other one where it can go no further.
  useEffect(() => {
    if (!moved.current) return;
    const { at, by } = moved.current;
    const [up, down] = list.current!.children[at]!.querySelectorAll("button");
    const same = by < 0 ? up! : down!;
    (same.disabled ? (by < 0 ? down! : up!) : same).focus();
    moved.current = null;
  }, [held.files]);

  return (
    <div
      className={`pad ${styles.files} ${over ? styles.dropping : ""}`}
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes("Files")) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        said(bring([...e.dataTransfer.files]));
      }}
    >
      {files.length > 0 && (
        <ul ref={list} aria-label={ofPictures ? "Pictures" : "Attached files"}>
          {files.map((file, at) => {
            const what = file.words || `picture ${at + 1}`;
            return (
              <li key={file.file}>
                {file.width > 0 && <img src={ownFiles.picture(file.file)} alt="" loading="lazy" />}
                <Field
                  label={ofPictures ? `Caption of picture ${at + 1}` : `Name of file ${at + 1}`}
                  value={file.words}
                  sentence
                  rows={ofPictures ? 2 : 1}
                  onKeep={(words) => keep(files.map((f) => (f === file ? { ...f, words: words.trim() } : f)))}
                />
                <div>
                  <button
                    type="button"
                    className="act"
                    disabled={at === 0}
                    aria-label={`Move ${what} up`}
                    onClick={() => said(move(at, -1))}
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    className="act"
                    disabled={at === files.length - 1}
                    aria-label={`Move ${what} down`}
                    onClick={() => said(move(at, 1))}
                  >
                    ↓
                  </button>
                  <button
                    type="button"
                    className="act"
                    aria-label={`Take ${what} away`}
                    onClick={() => said(keep(files.filter((f) => f !== file)))}
                  >
                    Take away
                  </button>
                </div>
              </li>
            );
          })}
        </ul>
      )}
      <FileAct
        words={coming > 0 ? "Bringing them in …" : ofPictures ? "Add pictures" : "Attach files"}
        label={
          ofPictures ? "Pictures: PNG, JPEG or WebP, up to 20 MB each" : "Files: PDF, PNG, JPEG or WebP, 15 MB together"
        }
        accept={ofPictures ? pictures : `application/pdf,${pictures}`}
        several
        onFiles={(brought) => said(bring(brought))}
      />
      <p className="note">
        {ofPictures
          ? "Or drop them here. The customer gets them turned upright and without what the camera wrote beside them, such as the place."
          : "Or drop them here. They go with the mail and stand on the customer’s page. A PDF goes as it is."}
      </p>
      {ofPictures && (
        <Choice
          label="In a row"
          value={String(held.across ?? 2)}
          options={[
            ["1", "One, as wide as the page"],
            ["2", "Two"],
            ["3", "Three"],
          ]}
          onChoose={(across) => said(does.set(held, "across", Number(across)))}
        />
      )}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
