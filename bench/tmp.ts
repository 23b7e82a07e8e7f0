import { readFileSync } from 'node:fs';
for (const p of ['hatch-cover','mooring-rail','sensor-carrier','gasket-plate','manifold-block']) {
  const j = JSON.parse(readFileSync(`/tmp/o-${p}.json`,'utf8'));
  console.log(p, JSON.stringify(j.uncovered.map((u:any)=>u.feature+': '+u.reason.slice(0,60))), JSON.stringify(j.proof.overcutVolume), j.proof.leftoverVolume);
}
