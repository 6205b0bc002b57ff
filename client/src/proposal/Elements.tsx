import { type CSSProperties, useContext } from "react";
import type { Schemas } from "../api/client";
import { FiguresContext } from "../figure/figuresContext";
import { FilesContext } from "./filesContext";
import styles from "./paper.module.css";

function Spans({ spans }: { spans: readonly Schemas["Span"][] }) {
  const figures = useContext(FiguresContext);
  return spans.map((span, i) => {
    const said = figures.span(span);
    return span.stress === "strong" ? (
      <strong key={i}>{said}</strong>
    ) : span.stress === "slanted" ? (
      <em key={i}>{said}</em>
    ) : (
      <span key={i}>{said}</span>
    );
  });
}

/** One element of a block. */
export function One({ element }: { element: Schemas["Element"] }) {
  switch (element.type) {
    case "heading":
      return element.level === 1 ? <h2>{element.text}</h2> : <h3>{element.text}</h3>;
    case "paragraph":
      return (
        <p>
          <Spans spans={element.spans} />
        </p>
      );
    case "bullets":
      return (
        <ul>
          {element.items.map((item, i) => (
            <li key={i}>
              <Spans spans={item.spans} />
            </li>
          ))}
        </ul>
      );
    case "pictures":
      return <PictureRow row={element} />;
    case "attached":
      return <AttachedFiles files={element.files} />;
    case "priceTable":
      return <PriceTable table={element} />;
    case "signed":
      return <p>{[element.name, element.for, element.at].filter(Boolean).join(", ")}</p>;
    case "signature":
      return (
        <div className={styles.sign}>
          {[element.for || "the customer", element.by].map((who) => (
            <div key={who}>
              For {who}
              <span>Date</span>
            </div>
          ))}
        </div>
      );
  }
}

/** Pictures side by side, each as wide as the core shares the row. */
function PictureRow({ row }: { row: Schemas["ElementPictureRow"] }) {
  const files = useContext(FilesContext);
  return (
    <div className={styles.pictures} style={{ "--gaps": row.pictures.length - 1 } as CSSProperties}>
      {row.pictures.map((picture) => (
        <figure key={picture.file} style={{ "--share": picture.share } as CSSProperties}>
          <img
            src={files.picture(picture.file)}
            alt={picture.caption || "Picture"}
            width={picture.width}
            height={picture.height}
            loading="lazy"
          />
          {picture.caption && <figcaption aria-hidden="true">{picture.caption}</figcaption>}
        </figure>
      ))}
    </div>
  );
}

function AttachedFiles({ files }: { files: readonly Schemas["AttachedFile"][] }) {
  const at = useContext(FilesContext);
  return (
    <ul>
      {files.map((file) => (
        <li key={file.file}>
          <a href={at.attached(file.file)} download={file.name}>
            {file.name}
          </a>
        </li>
      ))}
    </ul>
  );
}

const columns = [
  ["quantity", "quantity"],
  ["unitPrice", "unit price"],
  ["hours", "hours"],
] as const;

function PriceTable({ table }: { table: Schemas["ElementPriceTable"] }) {
  const figures = useContext(FiguresContext);
  const numbered = table.rows.some((r) => r.number !== "");
  const shown = columns.filter(([column]) => table.rows.some((r) => r[column] !== ""));
  return (
    <table>
      <caption className={shown.length > 0 ? styles.headed : ""}>amounts in {table.currency}</caption>
      {shown.length > 0 && (
        <thead>
          <tr>
            {numbered && <td />}
            <td />
            {shown.map(([column, words]) => (
              <th key={column} scope="col">
                {words}
              </th>
            ))}
            <th scope="col">amount</th>
          </tr>
        </thead>
      )}
      <tbody>
        {table.rows.map((row, i) => (
          <tr key={i} className={styles[row.kind]}>
            {numbered && <td className={styles.number}>{row.number}</td>}
            <th scope="row" colSpan={row.amount === null ? shown.length + 2 : 1}>
              {row.label}
              {row.detail && <small>{row.detail}</small>}
            </th>
            {row.amount !== null && (
              <>
                {shown.map(([column]) => (
                  <td key={column}>{row[column]}</td>
                ))}
                <td onClick={(e) => e.stopPropagation()}>{figures.row(row)}</td>
              </>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
