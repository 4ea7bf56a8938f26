/** Deleting a site, by typing its name. */
import { Alert, Input, Modal } from "antd";
import { useState } from "react";
import { deleteSite } from "../keep/sites";
import { useSite } from "../keep/store";
import { goTo } from "../ui/address";

export function DeleteSite({ id, name, close }: { id: string; name: string; close(): void }) {
  const [typed, setTyped] = useState("");
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);
  const remove = async (): Promise<void> => {
    setBusy(true);
    try {
      await deleteSite(id, name);
      useSite.getState().close();
      goTo("#/");
    } catch (error) {
      setBusy(false);
      setFault((error as Error).message);
    }
  };
  return (
    <Modal
      open
      title="Delete this site"
      okText="Delete for good"
      okButtonProps={{ danger: true, disabled: typed !== name }}
      confirmLoading={busy}
      onOk={() => void remove()}
      onCancel={close}
    >
      <p>
        All its revisions, its photos and what is on this device of it go, for everybody. Save it as a site file first
        if it may be wanted again.
      </p>
      <label className="stacked">
        Type its name, {name}, to delete it
        <Input value={typed} onChange={(event) => setTyped(event.target.value)} autoFocus />
      </label>
      {fault && <Alert type="error" showIcon title={`It was not deleted: ${fault}.`} />}
    </Modal>
  );
}
