import styles from "./customer.module.css";
import type { Link, Now, Page } from "./link";
import { Write } from "./Write";

interface Props {
  page: Page;
  link: Link;
  onPage: (now: Now) => void;
}

/** What was asked, what was answered, and a place to ask. */
export function Questions({ page, link, onPage }: Props) {
  const { firm } = page.document.head;
  return (
    <section id="questions" aria-label="Questions" className={styles.questions}>
      <h2>Questions</h2>
      {page.questions.length === 0 && <p>Is something not clear? Ask, and the answer will stand here.</p>}
      {page.questions.map((question) => (
        <article key={question.id} aria-label={`Question of ${question.at}`}>
          <p className={styles.asked}>{question.words}</p>
          <small>
            {question.own ? "asked by you" : "asked by somebody else who has this proposal"}, {question.at}
          </small>
          {question.answers.map((answer) => (
            <blockquote key={answer.at + answer.words}>
              {answer.words}
              <footer>
                {firm}, {answer.at}
              </footer>
            </blockquote>
          ))}
          {question.answers.length === 0 && <p className={styles.waits}>With {firm}. The answer will stand here.</p>}
        </article>
      ))}
      {!link.byFirm && (
        <div id="ask">
          <Write
            label={page.stands ? "Your question, or that you want it again" : "Your question"}
            note="Everybody who has this proposal reads questions and answers."
            act="Send the question"
            said="Your question is on its way."
            needed
            onSay={(says) => link.ask(says).then(onPage)}
          />
        </div>
      )}
    </section>
  );
}
