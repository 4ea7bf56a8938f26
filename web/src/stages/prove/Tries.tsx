/** What was tried at a target by day or by night: each with its picture, whether it still counts, and what is odd about it. */
import { useEffect, useState } from "react";
import type { HalfProved, ProofTold, SiteFile } from "../../core/types";
import { evidenceOf } from "../../keep/evidence";
import { useSite } from "../../keep/store";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";
import { dropProof } from "./proveEdits";
import { half as halfWord, when } from "./words";

export function Tries({ half, name, night, site }: { half: HalfProved; name: string; night: boolean; site: SiteFile }) {
  return (
    <section aria-label={`Tried ${halfWord(night)}`} className="prove-tries">
      <h3>
        Tried {halfWord(night)} <VerdictMark verdict={half.verdict} /> <span className="fine">{half.says}</span>
      </h3>
      <ol data-testid="prove-tries">
        {half.proofs.map((proof) => (
          <Try key={proof.id} proof={proof} name={name} site={site} />
        ))}
      </ol>
    </section>
  );
}

function Try({ proof, name, site }: { proof: ProofTold; name: string; site: SiteFile }) {
  const camera = site.cameras.find(({ id }) => id === proof.head.camera)?.name ?? proof.head.camera;
  const moved = site.proofs?.find(({ id }) => id === proof.id)?.moved;
  return (
    <li className={proof.past === null ? "prove-try" : "prove-try prove-past"} data-verdict={proof.verdict}>
      <p>
        <VerdictMark verdict={proof.past === null ? proof.verdict : "unknown"} /> {proof.says}
      </p>
      <p className="fine">
        {camera}
        {proof.at ? `, ${when(proof.at)}` : ""}
        {proof.by ? `, ${proof.by}` : ""}
        {moved ? `. ${moved}` : ""}
      </p>
      {proof.past !== null && <p className="prove-odd">It counts no more: {proof.past}.</p>}
      {proof.odd.map((says) => (
        <p key={says} className="prove-odd">
          {says}
        </p>
      ))}
      {proof.picture && <EvidenceImage name={proof.picture.picture} says={`The picture of ${name}`} />}
      <Button size="small" type="text" onClick={() => dropProof(proof.id, name)}>
        Take it back
      </Button>
    </li>
  );
}

/** A picture that was kept, with the hash of its bytes: from this device, else from the server. */
export function EvidenceImage({ name, says }: { name: string; says: string }) {
  const url = useEvidence(name);
  return (
    <figure className="prove-evidence">
      {url ? <img src={url} alt={says} /> : <span className="hint">Not on this device, and the server is away.</span>}
      <figcaption className="fine figure">SHA-256 {name.slice(0, 16)}…</figcaption>
    </figure>
  );
}

/** The address in this page of a picture that was kept; null while it is not there. */
export function useEvidence(name: string | null): string | null {
  const site = useSite((state) => state.open?.id) ?? "";
  const [found, setFound] = useState<{ name: string; url: string } | null>(null);
  useEffect(() => {
    if (name === null) return;
    let url = "";
    let here = true;
    void evidenceOf(site, name).then((blob) => {
      if (!here || !blob) return;
      url = URL.createObjectURL(blob);
      setFound({ name, url });
    });
    return () => {
      here = false;
      if (url) URL.revokeObjectURL(url);
    };
  }, [site, name]);
  return found?.name === name ? found.url : null;
}
