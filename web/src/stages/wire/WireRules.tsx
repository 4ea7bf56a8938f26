/** The limits and prices of the wiring: a form of the site's own. */
import { Drawer } from "antd";
import { GUIDE } from "../../core/guide";
import type { SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { Measure, length, plain } from "../../ui/Measure";

type Rules = NonNullable<NonNullable<SiteFile["rules"]>["wiring"]>;
type Prices = NonNullable<Rules["prices"]>;
type Figure = Exclude<keyof Rules, "prices" | "segment" | "segment_bits">;

/** What a figure stands at where the site says nothing: the core's. */
const USUAL = GUIDE.wiring as Record<Figure, number>;
function rangeOf(field: Figure): { least: number; most: number } {
  const known = GUIDE.limits.find((limit) => limit.field === field);
  if (!known) throw new Error(`nobody says how far ${field} goes`);
  return known;
}

/** Label, field, where the usual value comes from. */
const LENGTHS = [
  ["Copper channel", "channel_m", "IEEE 802.3, ANSI/TIA-568"],
  ["Sure also with poor cable", "sure_m", "common practice"],
  ["Extended reach", "extended_m", "common practice"],
  ["Extended, with partner", "extended_pair_m", "common practice"],
  ["In a housing", "housing_m", "common practice"],
] as const;
const SHARES = [
  ["Slack", "slack_share", "common practice"],
  ["Left free, ports and power", "free_share", "common practice"],
  ["Lost in a cord, at most", "cord_drop_share", "common practice"],
  ["Bit rate, lower by", "rate_less_share", "common practice"],
  ["Bit rate, higher by", "rate_more_share", "common practice"],
] as const;
const OTHERS = [
  ["Extended reach runs at", "extended_mbps", "Mbit/s", 10, "common practice"],
  ["A repeater draws", "passes_w", "W", 1, "common practice"],
  ["Wireless signal, at least", "signal_dbm", "dBm", 1, "common practice"],
] as const;
const PRICES: [string, keyof Prices][] = [
  ["Metre on a wall", "wall"],
  ["Metre above a ceiling", "ceiling"],
  ["Metre in a conduit", "conduit"],
  ["Metre in a trench", "trench"],
  ["Digging, a metre", "dig"],
  ["Metre through the air", "air"],
  ["Switch, 8 ports", "switch_8"],
  ["Switch, 16 ports", "switch_16"],
  ["Injector, repeater, extender", "small_box"],
  ["Fibre, both ends", "fibre_ends"],
];

export function WireRules({ close }: { close(): void }) {
  const own = useSite((state) => state.open?.site.rules?.wiring) ?? {};
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const held: Record<Figure, number> = { ...USUAL, ...own };
  const set = (says: string, change: Partial<Rules>): void =>
    edit(says, (site) => {
      site.rules = { ...site.rules, wiring: { ...site.rules?.wiring, ...change } };
    });
  const price = (field: keyof Prices, value: number | null): void =>
    set("Change a price", { prices: { ...own.prices, [field]: value } });
  return (
    <Drawer open title="Limits and prices of the wiring" onClose={close} size={380}>
      <div className="rules-form">
        <h3>Lengths</h3>
        <div className="dials">
          {LENGTHS.map(([label, field, source]) => (
            <Measure
              key={field}
              of="wiring"
              label={label}
              value={held[field]}
              quantity={length(units)}
              min={rangeOf(field).least}
              max={rangeOf(field).most}
              hint={source}
              onChange={(v) => set("Change a limit of the wiring", { [field]: v })}
            />
          ))}
        </div>
        <h3>Shares</h3>
        <div className="dials">
          {SHARES.map(([label, field, source]) => (
            <Measure
              key={field}
              of="wiring"
              label={label}
              value={held[field] * 100}
              quantity={plain("%", 0, 5)}
              min={rangeOf(field).least * 100}
              max={rangeOf(field).most * 100}
              hint={source}
              onChange={(v) => set("Change a limit of the wiring", { [field]: v / 100 })}
            />
          ))}
          {OTHERS.map(([label, field, unit, step, source]) => (
            <Measure
              key={field}
              of="wiring"
              label={label}
              value={held[field]}
              quantity={plain(unit, 0, step)}
              min={rangeOf(field).least}
              max={rangeOf(field).most}
              hint={source}
              onChange={(v) => set("Change a limit of the wiring", { [field]: v })}
            />
          ))}
        </div>
        <h3>Prices, cable and labour together</h3>
        <p className="fine">
          In the money of your catalogue. Routing ranks by them once all are said; until then by metres and boxes.
        </p>
        <div className="dials">
          {PRICES.map(([label, field]) => (
            <Measure
              key={field}
              of="wiring"
              label={label}
              value={own.prices?.[field] ?? null}
              quantity={plain("", 2, 1)}
              min={0}
              max={1_000_000}
              empty={{ word: "not said", onEmpty: () => price(field, null) }}
              onChange={(v) => price(field, v)}
            />
          ))}
        </div>
      </div>
    </Drawer>
  );
}
