/** The names of the API's types, which are generated from the server's OpenAPI document, and a few of the web's own. */
import type { Answer, Ask, Model, Obstacle } from "./api";

export type * from "./api";
export type { Question as Line } from "./api";

/** What a question asks: its name. */
export type Asking = Ask["ask"];
/** The type of the answer to each question, by the question's name, as the core declares it. */
type Answers = {
  [Name in Asking]: Answer extends infer One ? (One extends Record<Name, infer Given> ? Given : never) : never;
};
/** The type of the answer to a question. */
export type AnswerTo<Question extends Ask> = Answers[Question["ask"]];

/** Metres east and north, or px right and down. */
export type Point = [number, number];
export type Lens = Model["lens"];
/** What has an outline on the plan. */
export type Outlined = Pick<Obstacle, "id" | "name" | "outline" | "closed">;
