/** All keys and words, on `?`. */
import { Modal } from "antd";
import { GLOSSARY } from "./glossary";
import { TOOLS } from "./tools";
import { Button } from "../../ui/controls";
import { useHelp } from "../../ui/help";
import { usePhone } from "../../ui/usePhone";

const KEYS: [string, string][] = [
  ["← →", "turn the selected camera 1° (Shift ×10, Alt ×0.1)"],
  ["↑ ↓", "tilt it 1° up, down (Shift ×10, Alt ×0.1)"],
  ["[ ]", "shorter, longer focal length"],
  ["PgUp PgDn", "raise, lower the camera"],
  ["J K", "next, previous promise"],
  ["T C O", "place a target, a camera, an obstacle: click on the plan, or Enter for its middle"],
  ["D", "draw walls and objects: clicks, or a length, Tab, a bearing, Enter; Enter on nothing ends it"],
  ["B", "select obstacles by a box: one corner, then the other"],
  ...TOOLS.flatMap(({ key }): [string, string][] => (key ? [[key.key.toUpperCase(), key.does]] : [])),
  ["F", "fill the middle with the tool, or put it back under the plan"],
  ["W", "ask why a place is seen or not: click on the plan, or Enter for its middle"],
  ["Del", "take out the obstacle, or its corner, that has the focus"],
  ["+ − 0", "zoom the plan in, out, show all"],
  ["Ctrl ← → ↑ ↓", "move what has the focus on the plan (Shift ×10); else the plan itself"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Esc", "let go"],
  ["?", "this list"],
];

export function KeysHelp() {
  const { open, show } = useHelp();
  // A phone has it in the site's menu.
  const phone = usePhone();
  return (
    <>
      {!phone && (
        <Button size="small" ghost onClick={() => show(true)} aria-label="Keys and words">
          ?
        </Button>
      )}
      <Modal open={open} onCancel={() => show(false)} footer={null} title="Keys and words">
        <dl className="keys">
          {KEYS.map(([key, does]) => (
            <div key={key}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <h3>Words</h3>
        <dl className="keys words">
          {GLOSSARY.map(([word, means]) => (
            <div key={word}>
              <dt>{word}</dt>
              <dd>{means}</dd>
            </div>
          ))}
        </dl>
      </Modal>
    </>
  );
}
