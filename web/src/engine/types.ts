/** The names of the API's types, which are generated from the server's OpenAPI document. */
import type { components } from "./api";

type Schemas = components["schemas"];

export type SiteFile = Schemas["SiteFile"];
export type Target = Schemas["Target"];
export type Camera = Schemas["Camera"];
export type CameraHead = Schemas["CameraHead"];
export type Obstacle = Schemas["Obstacle"];
export type Model = Schemas["Model"];
export type Task = Schemas["Task"];
export type Subject = Schemas["Subject"];
export type Verdict = Schemas["Verdict"];
export type Evaluation = Schemas["Evaluation"];
export type SightLine = Schemas["SightLine"];
export type RuleResult = Schemas["RuleResult"];
export type RuleName = Schemas["RuleName"];
export type TargetResult = Schemas["TargetResult"];
export type HeadResult = Schemas["HeadResult"];
export type Footprint = Schemas["Footprint"];
export type Section = Schemas["Section"];
export type Study = Schemas["Study"];
export type Ways = Schemas["Ways"];
export type Way = Schemas["Way"];
export type Units = Schemas["Units"];
export type Line = Schemas["Question"];
export type Fault = Schemas["Fault"];
export type SiteHead = Schemas["SiteHead"];
export type Revision = Schemas["Revision"];
export type RevisionHead = Schemas["RevisionHead"];
export type Conflict = Schemas["Conflict"];
export type Point = [number, number];
