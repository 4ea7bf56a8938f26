/** How a device is made to trust the desk's certificate: three steps, and the figures to compare. */
import { QrCode } from "../ui/QrCode";

export function Trust({ fingerprint, qr }: { fingerprint: string | null; qr: string | null }) {
  if (fingerprint === null)
    return <p>The desk shows the firm’s own certificate: there is nothing to set up on this device.</p>;
  return (
    <section aria-label="Trust the desk">
      <h2>Trust the desk, once for each phone</h2>
      <p>
        Without this everything works while phone and desk are on one network. With it the application also opens with
        no network, and holds what you do until the desk is there again.
      </p>
      {qr !== null && (
        <div className="trust-page">
          <QrCode svg={qr} alt="Code of this page, for a phone that is paired" />
          <p>On a phone that is paired, scan this: it opens these steps there.</p>
        </div>
      )}
      <ol className="trust-steps">
        <li>
          {qr === null ? (
            <a className="plain-button plain-primary" href="/api/share/authority.crt" download="bright-angle.crt">
              Load the certificate
            </a>
          ) : (
            "On the phone, press “Load the certificate”."
          )}
        </li>
        <li>
          In the phone’s settings, look for <b>certificate</b> or <b>profile</b>: install what was loaded as a{" "}
          <b>CA certificate</b>. Where the phone asks, switch on full trust for it (About › Certificate trust).
        </li>
        <li>Close the browser, and open this address again. The notice on top is gone.</li>
      </ol>
      <p className="fine">
        It is good for this desk’s addresses alone. Its fingerprint (SHA-256), the same here, at the desk and in the
        phone’s settings:
      </p>
      <p className="fingerprint figure">{fingerprint}</p>
    </section>
  );
}
