/** The papers: options for the client, how few cameras do, prices, the quote, the hand-over, and what was agreed. */
import { useSite } from "../../keep/store";
import { type PaperStep, goTo, paperAddress } from "../../ui/address";
import { ToolTabs } from "../../ui/ToolTabs";
import "../../ui/panels.css";
import "./papers.css";
import { AgreePanel } from "./AgreePanel";
import { FewestPanel } from "./FewestPanel";
import { OptionsPanel } from "./OptionsPanel";
import { PaperPage } from "./PaperPage";
import { PricesPanel } from "./PricesPanel";

const STEPS: { tool: PaperStep; word: string }[] = [
  { tool: "options", word: "Options" },
  { tool: "fewest", word: "Fewest cameras" },
  { tool: "prices", word: "Prices" },
  { tool: "quote", word: "Quote" },
  { tool: "agree", word: "Agree" },
  { tool: "handover", word: "Hand-over" },
];

export function PapersScreen({ step }: { step: string | null }) {
  const open = useSite((state) => state.open);
  if (!open) return null;
  const { id, site } = open;
  const chosen = STEPS.find((one) => one.tool === step)?.tool ?? "options";
  return (
    <div className="papers">
      <div className="no-print papers-tabs">
        <ToolTabs tools={STEPS} chosen={chosen} onChoose={(next) => goTo(paperAddress(id, next))} />
      </div>
      <section className="papers-body" aria-label={STEPS.find((one) => one.tool === chosen)?.word}>
        {chosen === "options" && <OptionsPanel key={id} site={site} />}
        {chosen === "fewest" && <FewestPanel key={id} site={site} />}
        {chosen === "prices" && <PricesPanel key={id} site={site} />}
        {chosen === "quote" && <PaperPage key={`${id} quote`} site={site} kind="quote" />}
        {chosen === "agree" && <AgreePanel key={id} site={site} />}
        {chosen === "handover" && <PaperPage key={`${id} handover`} site={site} kind="handover" />}
      </section>
    </div>
  );
}
