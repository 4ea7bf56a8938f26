/** The site was deleted while it was open here: what is in hand is not lost with it. */
import { Button, Modal } from "antd";
import { exportSite } from "../keep/files";
import { takeOff } from "../keep/shelf";
import { beginSite } from "../keep/sites";
import { useSite } from "../keep/store";
import { goTo, siteAddress } from "../ui/address";

export function GoneNotice() {
  const open = useSite((state) => (state.open?.saving.kind === "gone" ? state.open : null));
  if (open?.saving.kind !== "gone") return null;
  const { id, site } = open;
  const asNew = async (): Promise<void> => {
    const made = await beginSite(site, "Kept after it went from the server");
    useSite.getState().close();
    await takeOff(id);
    goTo(siteAddress(made));
  };
  const letGo = async (): Promise<void> => {
    useSite.getState().close();
    await takeOff(id);
    goTo("#/");
  };
  return (
    <Modal
      open
      title="This site is not on the server any more"
      closable={false}
      mask={{ closable: false }}
      keyboard={false}
      footer={[
        <Button key="file" onClick={() => exportSite(site)}>
          Save mine as a file
        </Button>,
        <Button key="drop" danger onClick={() => void letGo()}>
          Delete the copy here
        </Button>,
        <Button key="new" type="primary" onClick={() => void asNew()}>
          Go on as a new site
        </Button>,
      ]}
    >
      <p>The server says: {open.saving.message}. What you have here still stands on this device.</p>
    </Modal>
  );
}
