/** A reading that is typed off a display. */
import { Input, Modal, Radio } from "antd";
import { useState } from "react";
import { useSettings } from "../../../keep/settings";
import { parseLength } from "../../../ui/length";
import { plain } from "../../../ui/Measure";
import { unitWord } from "../../../ui/words";

const DEGREES = plain("°", 1, 0.1);

export function TypeReading({
  close,
  onTyped,
}: {
  close(): void;
  onTyped(distance: number, inclination: number | null, level: boolean): void;
}) {
  const units = useSettings((settings) => settings.units);
  const [text, setText] = useState("");
  const [angle, setAngle] = useState("");
  const [kind, setKind] = useState<"slope" | "level">("slope");
  const distance = parseLength(text, units);
  const inclination = angle.trim() === "" ? null : DEGREES.parse(angle);
  const fine =
    distance !== null && distance > 0 && (angle.trim() === "" || (inclination !== null && Math.abs(inclination) <= 89));
  const done = (): void => {
    if (!fine) return;
    onTyped(distance, kind === "level" ? null : inclination, kind === "level");
    close();
  };
  return (
    <Modal
      open
      title="Type a reading"
      okText="Take it"
      onCancel={close}
      onOk={done}
      okButtonProps={{ disabled: !fine }}
    >
      <Radio.Group
        aria-label="What the display shows"
        optionType="button"
        size="large"
        value={kind}
        onChange={(event) => setKind(event.target.value as "slope")}
        options={[
          { value: "slope", label: "Straight line, as shot" },
          { value: "level", label: "Level" },
        ]}
      />
      <label className="stacked">
        Distance, {unitWord(units)} unless you say otherwise
        <Input
          autoFocus
          size="large"
          aria-label="Distance"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onPressEnter={done}
          status={text !== "" && !fine ? "error" : ""}
        />
      </label>
      {kind === "slope" && (
        <label className="stacked">
          Inclination, degrees up, if the display shows it
          <Input
            size="large"
            aria-label="Inclination"
            inputMode="decimal"
            value={angle}
            onChange={(event) => setAngle(event.target.value)}
            onPressEnter={done}
          />
        </label>
      )}
    </Modal>
  );
}
