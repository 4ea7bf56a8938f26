/**
 * One page that stands alone: the promises, the expected views and a field to sign in. It opens without a network; the signed copy that
 * it saves is taken back in here.
 */
import { askOffer } from "../../core/offer";
import type { SignSheet, SiteFile, Units } from "../../core/types";
import type { Strokes } from "./Signature";
import { headsOf, viewOf } from "./viewPicture";
import { costs } from "./words";

const FORMAT = "bright-angle/signed";

/** What was shown, as a mark that differs when it differs: promises, cameras and their aims, conditions and prices. */
export async function shownMark(site: SiteFile): Promise<string> {
  const cameras = site.cameras.map((camera) => ({ ...camera, fitting: null }));
  const shown = JSON.stringify([site.name, site.targets, cameras, site.conditions ?? null, site.prices ?? null]);
  const digest = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(shown));
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, "0")).join("");
}

export const escaped = (text: string): string =>
  text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");

/** What a client is shown to agree on; null if nobody waits for it any more. */
export async function signSheet(site: SiteFile, units: Units): Promise<SignSheet | null> {
  const paper = await askOffer(site, { ask: "paper", units }, new AbortController().signal);
  if (!paper) return null;
  const views: SignSheet["views"] = [];
  for (const head of headsOf(site)) {
    const camera = paper.cameras.find(({ id }) => id === head.camera);
    const laid = camera?.heads.find((one) => one.head.head === head.head)?.in_photo;
    const picture = await viewOf(site, head, laid ?? null);
    if (picture && camera) views.push({ name: camera.name, what_for: camera.what_for, picture });
  }
  const heading = [
    paper.firm,
    paper.client && `for ${paper.client}`,
    paper.valid_until && `until ${paper.valid_until}`,
  ];
  return {
    site: paper.site,
    heading: heading.filter(Boolean).join(" · "),
    conditions: paper.conditions,
    promises: paper.promises.map((one) => `${one.name}: ${one.says} — ${one.verdict}`),
    views,
    does_not: paper.does_not,
    privacy: paper.privacy,
    costs: costs(paper.bill),
  };
}

/** The page; null if nobody waits for it any more. */
export async function signPage(site: SiteFile, units: Units): Promise<string | null> {
  const sheet = await signSheet(site, units);
  if (!sheet) return null;
  const head = JSON.stringify({ format: FORMAT, version: 1, site: site.name, of: await shownMark(site) });
  // The text of a script ends at the first "</": no name may hold one.
  return pageOf(sheet, head.replaceAll("<", "\\u003c"));
}

function pageOf(sheet: SignSheet, head: string): string {
  const list = (lines: string[]): string =>
    `<ul>${lines.map((line) => `<li dir="auto">${escaped(line)}</li>`).join("")}</ul>`;
  const views = sheet.views.map(
    ({ name, what_for, picture }) =>
      `<figure><img src="${escaped(picture)}" alt="${escaped(`What ${name} will see`)}"><figcaption><b dir="auto">${escaped(name)}</b> <span dir="auto">${escaped(what_for)}</span></figcaption></figure>`,
  );
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escaped(sheet.site)}: to agree</title>
<style>
body{font:16px/1.45 system-ui,sans-serif;max-width:52rem;margin:1rem auto;padding:0 1rem;color:#18222d;background:#fffdf7}
figure{margin:1rem 0;break-inside:avoid}img{max-width:100%;border:1px solid #18222d}
svg{width:100%;max-width:30rem;border:1px solid #4d5862;background:#fff;touch-action:none;display:block}
path{fill:none;stroke:#18222d;stroke-width:1.6;stroke-linecap:round}
input,button{font:inherit;padding:.5rem .8rem;min-height:44px;margin:.4rem .4rem .4rem 0}
</style></head><body>
<h1 dir="auto">${escaped(sheet.site)}</h1>
<p dir="auto">${escaped(sheet.heading)}</p>
<h2>What was promised, ${escaped(sheet.conditions)}</h2>${list(sheet.promises)}
<h2>What the cameras will see</h2><p>Computed pictures, or photos from the spot turned to what the camera will see.</p>${views.join("\n")}
<h2>What it does not do</h2>${list(sheet.does_not)}
<h2>Privacy and sound</h2>${list(sheet.privacy)}
<p><b>${escaped(sheet.costs)}</b></p>
<h2>Agree</h2>
<p><label>Who agrees <input id="name" maxlength="300"></label></p>
<svg id="field" viewBox="0 0 300 100" role="img" aria-label="Sign here"></svg>
<p><button id="save" disabled>Save the signed copy</button><button id="again">Sign again</button></p>
<p id="says" role="status"></p>
<script>
var head=${head},field=document.getElementById("field"),strokes=[],down=false;
function at(e){var b=field.getBoundingClientRect();function n(v){return Math.min(1,Math.max(0,Math.round(v*1e4)/1e4))}
return[n((e.clientX-b.left)/b.width),n((e.clientY-b.top)/b.height)]}
function draw(){field.replaceChildren();strokes.forEach(function(s){var p=document.createElementNS("http://www.w3.org/2000/svg","path");
p.setAttribute("d",s.map(function(q,i){return(i?"L":"M")+q[0]*300+" "+q[1]*100}).join("")+(s.length===1?"h0.1":""));field.append(p)});
document.getElementById("save").disabled=!strokes.length||!document.getElementById("name").value.trim()}
field.addEventListener("pointerdown",function(e){field.setPointerCapture(e.pointerId);down=true;strokes.push([at(e)]);draw()});
field.addEventListener("pointermove",function(e){if(down){strokes[strokes.length-1].push(at(e));draw()}});
field.addEventListener("pointerup",function(){down=false});
document.getElementById("name").addEventListener("input",draw);
document.getElementById("again").addEventListener("click",function(){strokes=[];draw()});
document.getElementById("save").addEventListener("click",function(){
var copy=Object.assign({},head,{name:document.getElementById("name").value.trim(),date:new Date().toISOString().slice(0,10),signature:strokes});
var a=document.createElement("a");a.href=URL.createObjectURL(new Blob([JSON.stringify(copy)],{type:"application/json"}));
a.download="signed-copy.json";a.click();document.getElementById("says").textContent="Saved. Send the file signed-copy.json back."});
</script></body></html>
`;
}

export type SignedCopy = { name: string; date: string; signature: Strokes; of: string } | { fault: string };

/** A signed copy as it comes back; what is wrong with it in words. Whether it is of the site as it stands is asked beside it. */
export function readSigned(text: string, site: SiteFile): SignedCopy {
  let copy: Record<string, unknown>;
  try {
    const read = JSON.parse(text) as unknown;
    if (typeof read !== "object" || read === null) return { fault: "This is no signed copy." };
    copy = read as Record<string, unknown>;
  } catch {
    return { fault: "This is no signed copy: it cannot be read." };
  }
  const { name, date, signature, of } = copy;
  if (copy["format"] !== FORMAT || typeof of !== "string")
    return { fault: "This is no signed copy of a page to agree." };
  if (copy["site"] !== site.name)
    return { fault: `This was signed for another site: ${String(copy["site"]).slice(0, 80)}.` };
  if (typeof name !== "string" || name.trim() === "") return { fault: "Nobody’s name stands on it." };
  if (typeof date !== "string" || !Array.isArray(signature) || signature.length === 0)
    return { fault: "It is not signed." };
  const point = (p: unknown): boolean =>
    Array.isArray(p) && p.length === 2 && p.every((axis) => typeof axis === "number" && axis >= 0 && axis <= 1);
  if (!signature.every((stroke) => Array.isArray(stroke) && stroke.every(point)))
    return { fault: "Its signature cannot be read." };
  return { name: name.trim(), date, signature: signature as Strokes, of };
}
