import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { RowFigure, SpanFigure } from "../figure/Figure";
import { FiguresContext } from "../figure/figuresContext";
import { One } from "./Elements";
import { Letterhead } from "./Letterhead";
import styles from "./paper.module.css";

export type Block = Schemas["Block"];

interface Props {
  document: Schemas["Document"];
  brand: Schemas["Brand"];
  /** Where it is worked on; none where it is only read. */
  at?: {
    /** The block that is worked on. */
    chosen: string;
    /** The block whose words are written just now. */
    writing: string;
    onChoose: (block: string) => void;
    onWrite: (block: string) => void;
    /** Stands in the place of the words while they are written; otherwise below them. */
    pen: (block: Block) => ReactNode;
  };
}

/** Each number can be asked how it came about. */
const figures = {
  span: (span: Schemas["Span"]) => <SpanFigure span={span} />,
  row: (row: Schemas["PriceRow"]) => <RowFigure row={row} />,
};

/** The proposal as the customer reads it, in the look of the firm: the same elements as the PDF. */
export function Paper({ document, brand, at }: Props) {
  const { head } = document;
  const cover = document.blocks.find((b) => b.kind === "cover" && b.isRead);
  const colours = { "--brand": brand.colour, "--brand-words": brand.colourOfWords } as React.CSSProperties;
  return (
    <FiguresContext value={figures}>
      <div className={`${styles.sheets} ${styles[brand.look]}`} style={colours}>
        {cover && (
          <article className={`${styles.paper} ${styles.cover}`}>
            {brand.mark && (
              <img className={styles.mark} src={`/api/files/${brand.mark}`} alt={`Mark of ${head.firm}`} />
            )}
            <h2 className={styles.title}>{head.title}</h2>
            <p className={styles.subtitle}>{head.subtitle}</p>
            {head.customer && <p>For {head.customer}</p>}
            <p className={styles.quiet}>
              {head.reference}
              <br />
              {head.validity}
            </p>
            <OneBlock block={cover} at={at} />
            <p className={styles.firm}>
              <strong>{head.firm}</strong>
              <span>{[head.slogan, head.firmAddress].filter(Boolean).join(" · ")}</span>
            </p>
          </article>
        )}
        <article className={styles.paper}>
          <Letterhead head={head} brand={brand} mark={brand.mark && `/api/files/${brand.mark}`} />
          <p className={styles.to}>
            {head.customer}
            <span>{head.customerAddress}</span>
          </p>
          <h2 className={styles.title}>{head.title}</h2>
          <p className={styles.subtitle}>{head.subtitle}</p>
          {document.blocks
            .filter((b) => b.kind !== "cover")
            .map((block) => (
              <OneBlock key={block.id} block={block} at={at} />
            ))}
          {brand.foot && <p className={styles.foot}>{brand.foot}</p>}
        </article>
      </div>
    </FiguresContext>
  );
}

function OneBlock({ block, at }: { block: Block; at: Props["at"] }) {
  const chosen = block.id === at?.chosen;
  const writing = block.id === at?.writing;
  if (!block.isRead && !chosen && !writing) return null;
  const words = (
    <div key="words">
      {!writing && block.words.map((element, i) => <One key={i} element={element} />)}
      {at?.pen(block)}
    </div>
  );
  const made = (
    <div key="made">
      {block.made.map((element, i) => (
        <One key={i} element={element} />
      ))}
    </div>
  );
  const classes = [
    styles.block,
    chosen && styles.chosen,
    !block.isRead && styles.unread,
    block.newPage && styles.newPage,
  ];
  return (
    // Keys reach a block in the list of blocks; a press here is a shorter way.
    <section
      id={`block-${block.id}`}
      aria-label={block.title}
      className={classes.filter(Boolean).join(" ")}
      onClick={() => at?.onChoose(block.id)}
      onDoubleClick={() => at?.onWrite(block.id)}
    >
      {block.isTitled && <h2>{block.title}</h2>}
      <div className={styles.body}>{block.wordsAfter ? [made, words] : [words, made]}</div>
    </section>
  );
}
