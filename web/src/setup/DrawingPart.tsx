import { Box, Flex, SimpleGrid, Table } from '@chakra-ui/react';
import { Fragment, useMemo } from 'react';
import { drawingDepthsSchema, layerDepthSchema, type DrawingDepths } from '@yellow-pin/core/drawing/depths';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { sizeOfOutline } from '@yellow-pin/core/drawing/to-model';
import { useJob } from '../job/job-view.ts';
import { changePlan } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Panel } from '../kit/Panel.tsx';

interface LayerSize {
  key: string;
  name: string;
  count: number;
}

/** What a 2D drawing does not say: thickness, and how deep each layer or size is cut. */
export function DrawingPart({ drawing, depths }: { drawing: Drawing; depths: DrawingDepths }) {
  const { plan } = useJob();
  const set = (part: Partial<DrawingDepths>): void => changePlan({ drawing: { ...depths, ...part } });
  const layers = useMemo(() => layersOf(drawing), [drawing]);
  return (
    <Panel name="Drawing">
      <SimpleGrid columns={3} gap="8px">
        <Labelled name="thickness">
          <LengthField
            value={depths.thickness}
            unit={plan.units}
            label="thickness"
            min={0.05}
            schema={drawingDepthsSchema.shape.thickness}
            onChange={(v) => set({ thickness: v })}
          />
        </Labelled>
      </SimpleGrid>
      <Table.Root size="sm" unstyled className="boxes" aria-label="Layers and depths">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>layer, size</Table.ColumnHeader>
            <Table.ColumnHeader>use</Table.ColumnHeader>
            <Table.ColumnHeader>depth</Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {layers.map(([layer, sizes]) => {
            const known = depths.layers[layer] ?? { use: 'cut' as const, depth: null };
            const change = (part: Partial<typeof known>): void =>
              set({ layers: { ...depths.layers, [layer]: { ...known, assumed: undefined, ...part } } });
            return (
              <Fragment key={layer}>
                <Table.Row>
                  <Table.Cell fontWeight="700">{layer}</Table.Cell>
                  <Table.Cell>
                    <Choice
                      label={`use of layer ${layer}`}
                      value={known.use}
                      options={(['outline', 'cut', 'ignore'] as const).map((u) => [u, u] as const)}
                      onChange={(use) => change({ use })}
                    />
                  </Table.Cell>
                  <Table.Cell>
                    {known.use === 'cut' && (
                      <Depth
                        label={`layer ${layer}`}
                        value={known.depth}
                        thickness={depths.thickness}
                        onChange={(depth) => change({ depth })}
                      />
                    )}
                  </Table.Cell>
                </Table.Row>
                {known.use === 'cut' &&
                  sizes.length > 1 &&
                  sizes.map((s) => (
                    <SizeRow key={s.key} size={s} layerDepth={known.depth} depths={depths} onChange={set} />
                  ))}
              </Fragment>
            );
          })}
        </Table.Body>
      </Table.Root>
    </Panel>
  );
}

/** One size of a layer: as deep as its layer, or its own. */
function SizeRow({
  size,
  layerDepth,
  depths,
  onChange,
}: {
  size: LayerSize;
  layerDepth: number | null;
  depths: DrawingDepths;
  onChange(part: Partial<DrawingDepths>): void;
}) {
  const { key, name, count } = size;
  const own = depths.sizes[key];
  const set = (depth: number | null): void => onChange({ sizes: { ...depths.sizes, [key]: depth } });
  const letGo = (): void => {
    const { [key]: _, ...rest } = depths.sizes;
    onChange({ sizes: rest });
  };
  return (
    <Table.Row>
      <Table.Cell>
        <Box as="span" textStyle="num" paddingInlineStart="16px">
          {count} x {name}
        </Box>
      </Table.Cell>
      <Table.Cell color="quiet">{own === undefined ? 'as its layer' : 'own depth'}</Table.Cell>
      <Table.Cell>
        {own === undefined ? (
          <Chip onClick={() => set(layerDepth)}>own depth</Chip>
        ) : (
          <Flex gap="5px">
            <Depth label={name} value={own} thickness={depths.thickness} onChange={set} />
            <Chip onClick={letGo}>as its layer</Chip>
          </Flex>
        )}
      </Table.Cell>
    </Table.Row>
  );
}

interface DepthProps {
  label: string;
  /** Null: through. */
  value: number | null;
  thickness: number;
  onChange(depth: number | null): void;
}

function Depth({ label, value, thickness, onChange }: DepthProps) {
  const { plan } = useJob();
  return (
    <Flex gap="5px" as="span">
      <Chip
        on={value === null}
        aria-label={`${label} through`}
        onClick={() => onChange(value === null ? Math.min(3, thickness / 2) : null)}
      >
        through
      </Chip>
      {value !== null && (
        <LengthField
          value={value}
          unit={plan.units}
          label={`${label} depth`}
          min={0.01}
          schema={layerDepthSchema.shape.depth.unwrap()}
          width="64px"
          onChange={onChange}
        />
      )}
    </Flex>
  );
}

/** The drawing's layers with the sizes that are on each. */
function layersOf(drawing: Drawing): [string, LayerSize[]][] {
  const out = new Map<string, Map<string, LayerSize>>();
  for (const o of drawing.outlines) {
    const sizes = out.get(o.layer) ?? new Map<string, LayerSize>();
    const size = sizeOfOutline(o);
    sizes.set(size.key, { ...size, count: (sizes.get(size.key)?.count ?? 0) + 1 });
    out.set(o.layer, sizes);
  }
  return [...out].map(([layer, sizes]) => [layer, [...sizes.values()]]);
}
