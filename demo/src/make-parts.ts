import { writeFile, mkdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { adapterPlate, hatchCover, manifoldBlock, mooringRail, sensorCarrier, ventCap } from './parts.ts';
import { gasketPlate } from './gasket-dxf.ts';
import { prepare, stepText } from './solids.ts';

/** Writes the demo's STEP parts; their output is committed. */
async function main(): Promise<void> {
  await prepare();
  const folder = fileURLToPath(new URL('../parts/', import.meta.url));
  await mkdir(folder, { recursive: true });
  await writeFile(`${folder}manifold-block.step`, await stepText([manifoldBlock()], 'Manifold block TW-114'));
  await writeFile(`${folder}gasket-plate.dxf`, gasketPlate());
  await writeFile(`${folder}hatch-cover.step`, await stepText([hatchCover()], 'Hatch cover TW-131'));
  await writeFile(`${folder}mooring-rail.step`, await stepText([mooringRail()], 'Mooring rail TW-152'));
  await writeFile(`${folder}sensor-carrier.step`, await stepText([sensorCarrier()], 'Sensor carrier TW-168'));
  await writeFile(`${folder}vent-cap.step`, await stepText([ventCap()], 'Vent cap TW-183'));
  await writeFile(
    `${folder}adapter-plate.step`,
    await stepText([adapterPlate()], 'Adapter plate TW-207', 'INCH'),
  );
}

await main();
