import { Button } from '@chakra-ui/react';
import { useNavigate } from 'react-router-dom';
import type { Row } from '@yellow-pin/core/job/derive';
import { chooseDirections } from '@yellow-pin/core/setup/choose-setups';
import {
  attitudeFor,
  attitudeName,
  freeSetupId,
  MOST_SETUPS,
  newSetup,
  WORK_OFFSETS,
} from '@yellow-pin/core/setup/setup';
import { useJob } from './job-view.ts';
import { LeaveOut } from './LeaveOut.tsx';
import { placeAddress } from './places.ts';
import { changePlan, usePick } from './store.ts';

/** Adds the setup from which most of some rows can be made; where no straight tool gets to any of them, they are left out instead. */
export function AddSetupFor({ rows }: { rows: Row[] }) {
  const { id, plan } = useJob();
  const pick = usePick((s) => s.pick);
  const navigate = useNavigate();
  const features = rows.flatMap((r) => r.size.features).filter((f) => f.reachableFrom.length > 0);
  if (features.length === 0 || plan.setups.length >= MOST_SETUPS)
    return (
      <LeaveOut
        keys={rows.map((r) => r.size.key)}
        label={rows.length > 1 ? 'Leave them out …' : 'Leave it out …'}
      />
    );
  const up = chooseDirections(features)[0]!;
  const name = attitudeName(attitudeFor(up));
  const add = (): void => {
    const fresh = newSetup(
      freeSetupId(plan.setups),
      name,
      up,
      WORK_OFFSETS[Math.min(plan.setups.length, WORK_OFFSETS.length - 1)],
    );
    changePlan({ setups: [...plan.setups, fresh] });
    pick({ setupId: fresh.id });
    void navigate(placeAddress(id, 'setup'));
  };
  return (
    <Button size="2xs" onClick={add}>
      Add a setup, {name}
    </Button>
  );
}
