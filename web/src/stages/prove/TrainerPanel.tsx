/** The trainer: a view and a question, answered by dragging; then the truth with what it rests on. Results stay on this device. */
import { useState } from "react";
import type { Lesson, SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { usePicture } from "../../core/usePicture";
import { KINDS, kindOf, useLessons } from "../../keep/lessons";
import { computedWish } from "../../pictures/computed";
import { Pixels } from "../../ui/Pixels";
import { Told } from "../../ui/Told";
import { Button, Segmented } from "../../ui/controls";

const WIDE = 720;
const WORDS: Record<Lesson["kind"], string> = {
  lens: "Which lens",
  height: "How high",
  reach: "How far",
  night: "By night",
};

export function TrainerPanel({ site }: { site: SiteFile }) {
  const { scores, next } = useLessons();
  const [invented, setInvented] = useState(site.cameras.length === 0 || site.targets.length === 0);
  // The kind stays while the question does: an answer changes the scores.
  const [asked, setAsked] = useState(() => ({ number: next, kind: kindOf(next, scores) }));
  const lesson = useAnswer(site, { ask: "lesson", ...asked, invented }, { by: "surveyor" });
  const onNext = (): void => {
    const now = useLessons.getState();
    setAsked({ number: now.next, kind: kindOf(now.next, now.scores) });
  };
  return (
    <div className="prove-three prove-two prove-trainer">
      <section className="promises prove-list" aria-label="Trainer">
        <div className="panel-head">
          <h2>Trainer</h2>
        </div>
        <div className="prove-scores">
          <Segmented<string>
            value={invented ? "made-up" : "site"}
            onChange={(value) => setInvented(value === "made-up")}
            options={[
              { value: "site", label: "This site" },
              { value: "made-up", label: "A made-up yard" },
            ]}
          />
          <table>
            <thead>
              <tr>
                <th />
                <th>right</th>
                <th>wrong</th>
              </tr>
            </thead>
            <tbody data-testid="scores">
              {KINDS.map((kind) => (
                <tr key={kind}>
                  <th scope="row">{WORDS[kind]}</th>
                  <td className="figure">{scores[kind]?.right ?? 0}</td>
                  <td className="figure">{scores[kind]?.wrong ?? 0}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="fine">What is missed comes again. Results stay on this device.</p>
          <Button size="small" onClick={() => useLessons.getState().forget()}>
            Begin anew
          </Button>
        </div>
      </section>
      <section className="prove-middle" aria-label="Question">
        {lesson.refused && (
          <>
            <p className="hint">{lesson.refused}.</p>
            <Button onClick={() => setInvented(true)}>A made-up yard</Button>
          </>
        )}
        {!lesson.refused && !lesson.value && <p className="hint">Working …</p>}
        {lesson.value && (
          <Told settled={lesson.settled} testId="lesson">
            <Question
              key={`${asked.number} ${invented ? "made-up" : "site"}`}
              site={site}
              lesson={lesson.value}
              onNext={onNext}
            />
          </Told>
        )}
      </section>
    </div>
  );
}

function Question({ site, lesson, onNext }: { site: SiteFile; lesson: Lesson; onNext(): void }) {
  const noted = useLessons((state) => state.noted);
  const [said, setSaid] = useState<number | null>(null);
  const [done, setDone] = useState(false);
  const shown = useView(site, lesson);
  const figure = "figure" in lesson.answer ? lesson.answer.figure : null;
  const choice = "choice" in lesson.answer ? lesson.answer.choice : null;
  const right =
    said !== null &&
    (figure ? Math.abs(said / figure.truth - 1) <= figure.near : choice !== null && said === choice.truth);
  const answer = (): void => {
    if (said === null || done) return;
    setDone(true);
    noted(lesson.kind, right);
  };
  const truth = figure ? `${figure.truth.toFixed(1)} ${figure.unit}` : (choice?.options[choice.truth] ?? "");
  return (
    <article data-testid="question" data-kind={lesson.kind}>
      {shown && <Pixels shown={shown} className="prove-view" label="The view that is asked about, computed" />}
      <h2 className="prove-title">{lesson.asks}</h2>
      {figure && (
        <div className="prove-dial">
          <input
            type="range"
            min={figure.least}
            max={figure.most}
            step={(figure.most - figure.least) / 400}
            value={said ?? (figure.least + figure.most) / 2}
            disabled={done}
            aria-label="Your answer"
            onChange={(event) => setSaid(Number(event.target.value))}
          />
          <span className="figure" data-testid="said">
            {said === null ? "drag it" : `${said.toFixed(1)} ${figure.unit}`}
          </span>
        </div>
      )}
      {choice && (
        <ul className="prove-choices">
          {choice.options.map((option, place) => (
            <li key={option}>
              <Button
                block
                aria-pressed={said === place}
                type={said === place ? "primary" : "default"}
                disabled={done}
                onClick={() => setSaid(place)}
              >
                {option}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {!done && (
        <Button type="primary" size="large" block disabled={said === null} onClick={answer}>
          That is it
        </Button>
      )}
      {done && (
        <section className="prove-truth" data-testid="truth" data-right={right}>
          <p className="prove-says">
            {right ? "Right" : "Not quite"}: {truth}
          </p>
          {lesson.because.map((says) => (
            <p key={says}>{says}</p>
          ))}
          {lesson.thumb && <p className="prove-odd">{lesson.thumb}</p>}
          <Button type="primary" size="large" block onClick={onNext}>
            Next
          </Button>
        </section>
      )}
    </article>
  );
}

/** The view of a question: of the site in hand, or of the made-up one. */
function useView(site: SiteFile, lesson: Lesson) {
  const of = lesson.site ?? site;
  return usePicture(of, lesson.head, computedWish(WIDE, lesson.kind === "night"), "view", "rest").shown;
}
