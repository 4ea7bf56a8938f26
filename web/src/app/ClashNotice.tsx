/** Somebody else changed the same things: each is shown side by side, and chosen one by one. */
import { Alert, Button, Modal, Radio } from "antd";
import { useState } from "react";
import type { Choice, Merged } from "../core/types";
import { exportSite } from "../keep/files";
import { type Clash, useSite } from "../keep/store";
import { THINGS } from "../ui/words";

export function ClashNotice() {
  const clash = useSite((state) => (state.open?.saving.kind === "clash" ? state.open.saving.clash : null));
  if (!clash) return null;
  return <Chooser key={clash.theirs.number} clash={clash} />;
}

const keyOf = ({ thing, id }: Pick<Choice, "thing" | "id">): string => `${thing}/${id}`;

function Chooser({ clash: { theirs, merged } }: { clash: Clash }) {
  const [choices, setChoices] = useState<Record<string, Choice["take"]>>({});
  // What came out of choosing, if that does not hold together.
  const [left, setLeft] = useState<Merged>(merged);
  const { settle } = useSite.getState();
  const at = new Date(theirs.saved_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  const all = left.clashes.length > 0 ? left.clashes : merged.clashes;
  const chosen = all.every((one) => choices[keyOf(one)]);
  const goOn = async (): Promise<void> => {
    const made = all.map(({ thing, id }): Choice => ({ thing, id, take: choices[keyOf({ thing, id })] ?? "mine" }));
    const open = await settle(made);
    if (open) setLeft(open);
  };
  const mine = (): void => {
    const site = useSite.getState().open?.site;
    if (site) exportSite(site);
  };
  return (
    <Modal
      open
      width={760}
      title="Somebody else changed the same things"
      closable={false}
      mask={{ closable: false }}
      keyboard={false}
      footer={[
        <Button key="file" onClick={mine}>
          Save mine as a file
        </Button>,
        <Button key="theirs" onClick={() => void settle("theirs")}>
          Take all of theirs
        </Button>,
        <Button key="mine" onClick={() => void settle("mine")}>
          Take all of mine
        </Button>,
        <Button key="chosen" type="primary" disabled={!chosen || all.length === 0} onClick={() => void goOn()}>
          Go on as chosen
        </Button>,
      ]}
    >
      <p>
        Revision {theirs.number} was saved {at}: “{theirs.says}”. What only one of you changed is taken from that one.
        Say whose to take of the rest; every revision stays on record.
      </p>
      {left.faults.length > 0 && (
        <Alert
          type="warning"
          showIcon
          title="These two do not hold together"
          description={`${left.faults[0]?.message ?? ""}. Choose otherwise, or take one of the two as a whole.`}
        />
      )}
      <table className="clashes">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Mine</th>
            <th scope="col">Theirs</th>
          </tr>
        </thead>
        <tbody>
          {all.map((one) => (
            <tr key={keyOf(one)}>
              <th scope="row">
                {THINGS[one.thing]} {one.name}
              </th>
              {(["mine", "theirs"] as const).map((side) => (
                <td key={side}>
                  <Radio
                    checked={choices[keyOf(one)] === side}
                    onChange={() => setChoices({ ...choices, [keyOf(one)]: side })}
                    aria-label={`${one.name}: take ${side}`}
                  >
                    {one[side]}
                  </Radio>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Modal>
  );
}
