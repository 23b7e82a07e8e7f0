import { Box, Button, Center, Checkbox, Flex, Heading, List, Text } from '@chakra-ui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router-dom';
import type { Feature } from '@yellow-pin/core/features/family';
import { familyOf, placeOf } from '@yellow-pin/core/features/registry';
import { distance } from '@yellow-pin/core/geometry/vec';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { carryPlan, compareFeatures, type Pair } from '@yellow-pin/core/revision/compare';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { api, type OpenJob, type PartRevision } from '../api.ts';
import { usePick } from '../job/store.ts';
import { LineButton } from '../kit/Chip.tsx';
import { Notice } from '../kit/Notice.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { Remark } from '../kit/Remark.tsx';
import PartView from '../part/PartView.tsx';
import { drawsInTheRound } from '../part/in-the-round.ts';
import { SkipLink } from '../shell/Page.tsx';
import { useRevisionPicture } from './use-revision-picture.ts';

interface Props {
  open: OpenJob;
  plan: Plan;
  part: PartRevision;
}

/** The newer part, what changed in it, and whether to go on with it. */
export function Compare({ open, plan, part }: Props) {
  const { job } = open;
  const client = useQueryClient();
  const navigate = useNavigate();
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: Infinity });
  const comparison = useMemo(() => compareFeatures(open.features, part.features), [open, part]);
  const [takeOver, setTakeOver] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const carried = useMemo(
    () => carryPlan(plan, open.features, comparison, takeOver),
    [plan, open, comparison, takeOver],
  );
  const { picture, produced, error } = useRevisionPicture(job.id, part, carried.plan, library.data);
  const pick = usePick((s) => s.pick);
  useEffect(() => pick({ tag: null, hole: null, hover: null, picking: null, chosen: [] }), [pick]);
  const labels = useMemo(
    () =>
      new Map(
        produced?.job.rows.flatMap((r) =>
          r.size.features.map((f, i) => [f.id, { tag: r.tag, label: `${r.tag}${i + 1}` }] as const),
        ) ?? [],
      ),
    [produced],
  );
  const show = (f: Feature): void => {
    const found = labels.get(f.id);
    if (found) pick({ tag: found.tag, hole: found.label });
  };
  const leave = (): void =>
    void api.discardRevision(job.id, part.revision).then(
      () => navigate(`/jobs/${job.id}`),
      (e: Error) => setProblem(e.message),
    );
  const accept = (): void => {
    setBusy(true);
    api.acceptRevision(job.id, part.revision, open.revision, carried.plan).then(
      async () => {
        await client.invalidateQueries({ queryKey: ['job', job.id] });
        void navigate(`/jobs/${job.id}`);
      },
      (e: Error) => {
        setProblem(e.message);
        setBusy(false);
      },
    );
  };
  const setup = produced?.job.setups[0];
  const unit = plan.units;
  return (
    <div className="bench two">
      <SkipLink />
      <div>
        {(problem ?? error) && <Notice kind="error">{problem ?? error}</Notice>}
        <Flex
          as="header"
          align="center"
          gap="12px"
          wrap="wrap"
          paddingInline="12px"
          minHeight="46px"
          borderBottomWidth="1.5px"
          borderColor="ink"
          background="sheet"
        >
          <Link to={`/jobs/${job.id}`} aria-label="Back to the job" title="Back to the job">
            <img src="/pin.svg" alt="" width={24} height={24} />
          </Link>
          <Heading as="h1" textStyle="heading">
            {job.name}
          </Heading>
          <Quiet>
            {job.fileName} (revision {job.partRevision}) → {part.fileName} (revision {part.revision})
          </Quiet>
          <Flex gap="8px" marginInlineStart="auto">
            <Button size="xs" onClick={leave} disabled={busy}>
              Leave the newer file
            </Button>
            <Button size="xs" variant="solid" onClick={accept} disabled={busy || !produced}>
              Go on with this revision
            </Button>
          </Flex>
        </Flex>
      </div>
      <Box as="main" id="chakra-skip-nav" tabIndex={-1} className="halves">
        {picture && setup && IN_THE_ROUND ? (
          <Box as="section" aria-label="Part" position="relative" display="grid" minWidth="0" minHeight="0">
            <PartView
              picture={picture}
              curves={produced!.curves}
              rows={produced!.job.rows}
              setup={setup}
              program={null}
              library={null}
              showMotion={false}
              fit={0}
              onPlace={null}
            />
          </Box>
        ) : (
          <Center className="part-pane" role="status">
            {IN_THE_ROUND ? 'Drawing the newer part …' : 'This browser draws nothing in the round.'}
          </Center>
        )}
        <section className="sheet" aria-label="What changed">
          <Box className="sheet-scroll" padding="8px 12px">
            <Group title="New" empty="Nothing new." items={comparison.added}>
              {(f) => <LineButton onClick={() => show(f)}>{line(f, unit)}</LineButton>}
            </Group>
            <Group title="Resized" empty="Nothing was resized." items={comparison.resized}>
              {(p) => (
                <>
                  <LineButton onClick={() => show(p.after)}>
                    <Box as="span">
                      {familyOf(p.after).describe(p.before, (mm) => formatLength(mm, unit))} →{' '}
                      <b>{familyOf(p.after).describe(p.after, (mm) => formatLength(mm, unit))}</b>
                      <Quiet display="block" textStyle="small">
                        {p.after.family} at {at(p.after, unit)}
                      </Quiet>
                    </Box>
                  </LineButton>
                  {hasDecision(plan, p) && (
                    <Checkbox.Root
                      size="sm"
                      checked={takeOver.has(p.after.id)}
                      onCheckedChange={(d) =>
                        setTakeOver(
                          new Set(
                            d.checked === true
                              ? [...takeOver, p.after.id]
                              : [...takeOver].filter((x) => x !== p.after.id),
                          ),
                        )
                      }
                    >
                      <Checkbox.HiddenInput />
                      <Checkbox.Control />
                      <Checkbox.Label fontWeight="400" whiteSpace="nowrap">
                        take its decisions over
                      </Checkbox.Label>
                    </Checkbox.Root>
                  )}
                </>
              )}
            </Group>
            <Group title="Moved" empty="Nothing moved." items={comparison.moved}>
              {(p) => (
                <LineButton onClick={() => show(p.after)}>
                  {line(p.after, unit)}, by{' '}
                  {formatLength(distance(placeOf(p.before), placeOf(p.after)), unit)}
                </LineButton>
              )}
            </Group>
            <Group title="Gone" empty="Nothing is gone." items={comparison.gone}>
              {(f) => <Text>{line(f, unit)}</Text>}
            </Group>
            <Heading as="h2" className="group">
              Stayed · {comparison.stayed.length}
            </Heading>
            <Quiet as="p">They keep everything that was decided for them.</Quiet>
            {carried.asks.map((a) => (
              <Remark key={a} severity="warning">
                {a}
              </Remark>
            ))}
          </Box>
        </section>
      </Box>
    </div>
  );
}

const IN_THE_ROUND = drawsInTheRound();

const at = (f: Feature, unit: LengthUnit): string =>
  placeOf(f)
    .map((v) => formatLength(v, unit))
    .join(', ');
const line = (f: Feature, unit: LengthUnit): string =>
  `${f.family} ${familyOf(f).describe(f, (mm) => formatLength(mm, unit))} at ${at(f, unit)}`;
const hasDecision = (plan: Plan, p: Pair): boolean =>
  plan.sizes[familyOf(p.before).sizeKey(p.before, false)] !== undefined;

interface GroupProps<T> {
  title: string;
  empty: string;
  items: readonly T[];
  children(item: T): React.ReactNode;
}

function Group<T>({ title, empty, items, children }: GroupProps<T>) {
  return (
    <>
      <Heading as="h2" className="group">
        {title} · {items.length}
      </Heading>
      {items.length === 0 && <Quiet as="p">{empty}</Quiet>}
      <List.Root listStyle="none">
        {items.map((item, i) => (
          <List.Item
            key={i}
            display="flex"
            gap="10px"
            alignItems="center"
            borderBottomWidth="1px"
            borderColor="rule"
          >
            {children(item)}
          </List.Item>
        ))}
      </List.Root>
    </>
  );
}
