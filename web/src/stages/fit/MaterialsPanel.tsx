/** Everything that is bought and brought, in one list. */
import { App } from "antd";
import { ask } from "../../core/port";
import type { Material, SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { saveFile } from "../../keep/files";
import { Told } from "../../ui/Told";
import { Button } from "../../ui/controls";

const KINDS: Record<Material["kind"], string> = {
  camera: "Cameras",
  mount: "Mounts",
  box: "Boxes",
  cable: "Cable",
  small: "Small parts",
  with: "Has to be bought with it",
};

export function MaterialsPanel({ site }: { site: SiteFile }) {
  const { value, settled } = useAnswer(site, { ask: "materials" }, { by: "surveyor", keeps: true });
  const { message } = App.useApp();
  const save = async (): Promise<void> => {
    try {
      const text = await ask(site, { ask: "materials_csv" }, "surveyor");
      saveFile(new Blob([text], { type: "text/csv" }), site.name, "materials.csv");
    } catch (error) {
      void message.warning(error instanceof Error ? error.message : String(error));
    }
  };
  if (!value) return <p className="hint">Working …</p>;
  if (value.bought.length + value.there.length === 0) return <p className="hint">There is nothing to buy yet.</p>;
  return (
    <Told settled={settled} className="fit-materials" testId="materials">
      <p className="fit-days-head">
        {value.price > 0 && (
          <>
            <span className="figure">{value.price.toLocaleString("en", { maximumFractionDigits: 2 })}</span> for what
            has a price;{" "}
          </>
        )}
        {value.unpriced > 0 && `${value.unpriced} lines have no price.`}
        <Button size="small" type="primary" className="no-print" onClick={() => window.print()}>
          Print
        </Button>
        <Button size="small" className="no-print" onClick={() => void save()}>
          Save as CSV
        </Button>
      </p>
      <table className="wire-rows fit-rows">
        <thead>
          <tr>
            <th>What</th>
            <th>Needed</th>
            <th>Spare</th>
            <th>Goes to</th>
            <th>Price</th>
          </tr>
        </thead>
        {(Object.keys(KINDS) as Material["kind"][]).map((kind) => {
          const here = value.bought.filter((one) => one.kind === kind);
          return here.length === 0 ? null : <Rows key={kind} word={KINDS[kind]} rows={here} />;
        })}
        {value.there.length > 0 && <Rows word="There already" rows={value.there} />}
      </table>
    </Told>
  );
}

const Rows = ({ word, rows }: { word: string; rows: Material[] }) => (
  <tbody>
    <tr>
      <th colSpan={5} scope="colgroup">
        {word}
      </th>
    </tr>
    {rows.map((one) => (
      <tr key={one.what}>
        <td>{one.what}</td>
        <td className="figure">
          {one.needed} {one.unit}
        </td>
        <td className="figure">{one.spare > 0 ? one.spare : ""}</td>
        <td className="fine">
          {one.goes_to.length > 4
            ? `${one.goes_to.slice(0, 4).join(", ")} and ${one.goes_to.length - 4} more`
            : one.goes_to.join(", ")}
        </td>
        <td className="figure">
          {one.total === null ? "" : one.total.toLocaleString("en", { maximumFractionDigits: 2 })}
        </td>
      </tr>
    ))}
  </tbody>
);
