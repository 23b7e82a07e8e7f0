import { Button, Flex, Text } from '@chakra-ui/react';
import { useState } from 'react';
import type { Row } from '@yellow-pin/core/job/derive';
import { matchedRows, methodFromRow } from '@yellow-pin/core/job/method-from-row';
import type { Method, MethodOperation } from '@yellow-pin/core/methods/schema';
import { methodFaults } from '@yellow-pin/core/methods/faults';
import { SHIPPED_METHODS } from '@yellow-pin/core/methods/shipped';
import { useJob } from '../job/job-view.ts';
import { decide } from '../job/store.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { SidePanel } from '../kit/SidePanel.tsx';
import { toaster } from '../kit/toaster.tsx';
import { MethodForm } from '../methods/MethodForm.tsx';
import { kindsMoved } from '../methods/kinds-moved.ts';
import { OperationList } from '../methods/OperationList.tsx';
import { useListChanges } from '../shop/use-library.ts';
import { newId } from '../kit/new-id.ts';

/** The operations of one size: added, taken out, swapped, moved; and the row as a method for the next like it. */
export function RowOperations({ row, onDone }: { row: Row; onDone(): void }) {
  const { plan, library } = useJob();
  const [saving, setSaving] = useState<Method | null>(null);
  const decision = plan.sizes[row.size.key] ?? { overrides: {} };
  const base = [...library.methods, ...SHIPPED_METHODS].find((m) => m.id === row.method?.id) ?? null;
  const operations = decision.operations ?? base?.operations ?? null;
  const change = (next: MethodOperation[]): void => {
    // What was typed for an operation is known by its kind and place among its like: it goes with those whose places moved.
    const moved = new Set(kindsMoved(operations ?? [], next));
    const kept = Object.entries(decision.overrides).filter(
      ([key]) => !moved.has(key.replace(/^far /, '').replace(/ \d+$/, '')),
    );
    decide(row.size.key, { operations: next, overrides: Object.fromEntries(kept) });
  };
  const asMethod = (): void => {
    const named = { id: `own-${newId(8)}`, name: row.calloutText.slice(0, 60) };
    if (base) setSaving(methodFromRow(row, base, decision, named));
  };
  return (
    <SidePanel title={saving ? `${row.tag} as a method` : `Operations of ${row.tag}`} onClose={onDone}>
      {saving ? (
        <SaveMethod method={saving} onChange={setSaving} onDone={() => setSaving(null)} />
      ) : operations ? (
        <>
          <OperationList operations={operations} family={base?.family ?? 'hole'} onChange={change} />
          <Text color="quiet" textStyle="small" marginBlock="10px">
            {decision.operations
              ? `Changed for this size; the method "${base?.name ?? ''}" stays as it is.`
              : `As the method "${base?.name ?? ''}" has them. What is changed here holds for this size only.`}
          </Text>
          <Flex gap="8px" wrap="wrap">
            {decision.operations && (
              <Button
                size="xs"
                variant="outline"
                onClick={() => decide(row.size.key, { operations: undefined })}
              >
                Back to the method
              </Button>
            )}
            <Button
              size="xs"
              variant="outline"
              disabled={row.holes.length + row.grooves.length + row.areas.length + row.edges.length === 0}
              onClick={asMethod}
            >
              Save as a method …
            </Button>
          </Flex>
        </>
      ) : (
        <Text>No method applies to it: choose one first.</Text>
      )}
    </SidePanel>
  );
}

/** A row as a method: its name, for which holes it is, and which sizes of this job it would match. */
function SaveMethod({
  method,
  onChange,
  onDone,
}: {
  method: Method;
  onChange(m: Method): void;
  onDone(): void;
}) {
  const { rows, plan, library } = useJob();
  const { put } = useListChanges('methods');
  const matched = matchedRows(method, rows, plan.materialId);
  const faults = methodFaults(method);
  return (
    <>
      <MethodForm method={method} materials={library.materials} onChange={onChange} />
      <Text marginBlock="10px" aria-live="polite">
        {matched.length === 0
          ? 'It matches no size of this job.'
          : `In this job it matches ${matched.map((r) => r.tag).join(', ')}.`}
        <Quiet display="block" textStyle="small">
          Depths are not in it: they belong to each feature.
        </Quiet>
      </Text>
      {[...faults, ...(put.error ? [put.error.message] : [])].map((f) => (
        <FieldSays key={f}>{f}</FieldSays>
      ))}
      <Flex gap="8px">
        <Button
          size="sm"
          disabled={faults.length > 0}
          loading={put.isPending}
          onClick={() =>
            put.mutate(method, {
              onSuccess: () => {
                toaster.create({ description: `"${method.name}" is one of the shop's methods` });
                onDone();
              },
            })
          }
        >
          Save it
        </Button>
        <Button size="sm" variant="outline" onClick={onDone}>
          Back
        </Button>
      </Flex>
    </>
  );
}
