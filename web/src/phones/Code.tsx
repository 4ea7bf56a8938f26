/** The code that a phone scans: drawn when it is asked for, gone when it was used or is over. */
import { useEffect, useState } from "react";
import type { PairingCode } from "../core/types";
import { request } from "../keep/http";
import { QrCode } from "../ui/QrCode";

interface Shown extends PairingCode {
  /** When it is over, ms. */
  until: number;
  /** How many devices there were then. */
  known: number;
}

export function Code({ known }: { known: number }) {
  const [shown, setShown] = useState<Shown | null>(null);
  const [fault, setFault] = useState("");
  const [left, setLeft] = useState(0);
  const draw = async (): Promise<void> => {
    setFault("");
    try {
      const code = await request<PairingCode>("POST", "/api/share/code", null);
      setLeft(code.lasts_s);
      setShown({ ...code, until: Date.now() + code.lasts_s * 1000, known });
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  useEffect(() => {
    if (!shown) return undefined;
    const timer = setInterval(() => {
      const seconds = Math.ceil((shown.until - Date.now()) / 1000);
      if (seconds > 0) setLeft(seconds);
      else setShown(null);
    }, 500);
    return () => clearInterval(timer);
  }, [shown]);
  const used = shown !== null && known > shown.known;
  return (
    <section className="pairing" aria-label="Pair a phone">
      {shown && !used ? (
        <>
          <QrCode svg={shown.qr_svg} alt="Code to scan with the phone’s camera" />
          <div>
            <p>
              <strong>Scan it with the phone’s camera</strong>, on the same network. The phone warns once that it does
              not know this desk: go on.
            </p>
            <p>
              Good once, for <span className="figure">{left}</span> s more.
            </p>
            <p className="fine code-url" data-testid="pairing-url">
              {shown.url}
            </p>
          </div>
        </>
      ) : (
        <>
          {used && <p role="status">Paired.</p>}
          <button type="button" className="plain-button plain-primary" onClick={() => void draw()}>
            Pair a phone
          </button>
        </>
      )}
      {fault && (
        <div className="notice-box notice-bad" role="alert">
          There is no code: {fault}.
        </div>
      )}
    </section>
  );
}
