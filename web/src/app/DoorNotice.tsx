/** Says when the desk does not let this device in any more, and when nothing of the application is kept on it. */
import { useState } from "react";
import { PAIRING, useDoor } from "../keep/door";
import { PHONES } from "../ui/address";

export function DoorNotice() {
  const { paired, trusted } = useDoor();
  const [closed, setClosed] = useState(false);
  if (!paired)
    return (
      <div className="notice-box notice-bad door-notice" role="alert">
        <div>
          <strong>This device is not paired any more</strong>
          <p>What you do here stays on this device, and is sent once it is paired again.</p>
        </div>
        <a className="plain-button" href={PAIRING}>
          Pair it
        </a>
      </div>
    );
  if (trusted || closed) return null;
  return (
    <div className="notice-box door-notice" role="status">
      <div>
        <strong>This device does not trust the desk yet</strong>
        <p>Everything works while both are on the network. Without the network the application does not open here.</p>
      </div>
      <a className="plain-button" href={PHONES} onClick={() => setClosed(true)}>
        Trust it
      </a>
      <button type="button" className="plain-button" onClick={() => setClosed(true)}>
        Close
      </button>
    </div>
  );
}
