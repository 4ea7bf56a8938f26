/** Somebody else saved in between: both versions stay, the user says with which one to go on. */
import { Button, Modal } from "antd";
import { exportSite } from "../keep/files";
import { useSite } from "../keep/store";

export function StaleNotice() {
  const open = useSite((state) => (state.open?.saving.kind === "stale" ? state.open : null));
  const settle = useSite((state) => state.settle);
  if (open?.saving.kind !== "stale") return null;
  const { theirs, message } = open.saving.conflict;
  const at = new Date(theirs.saved_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  return (
    <Modal
      open
      title="Somebody else kept a change to this site"
      closable={false}
      mask={{ closable: false }}
      keyboard={false}
      footer={[
        <Button key="file" onClick={() => exportSite(open.site)}>
          Save mine as a file
        </Button>,
        <Button key="theirs" onClick={() => settle("theirs")}>
          Take theirs
        </Button>,
        <Button key="mine" type="primary" onClick={() => settle("mine")}>
          Keep mine as revision {theirs.number + 1}
        </Button>,
      ]}
    >
      <p>Nothing was overwritten: {message}.</p>
      <p>
        Theirs, revision {theirs.number}, kept {at}: “{theirs.says}”. Yours: “{open.says}”.
      </p>
      <p>Every revision stays on record, so neither is lost whichever you take. Taking theirs can be undone.</p>
    </Modal>
  );
}
