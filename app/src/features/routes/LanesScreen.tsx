import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { findSubnet, type Plan } from '@ipsonomo/core/plan';
import type { LinkCell } from '@ipsonomo/core/routes';
import { ROUTES_WORDS } from '@ipsonomo/language/screens/routes';
import { lanesQuery, useJob } from '../../data';
import { Page, Pick, Refusals, Row, Words } from '../../parts';
import { useWide } from '../../theme';
import { issuesOf } from '../words';

/** Who can talk with whom: every interface asked from every other, counted lane by lane. */
export function LanesScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const wide = useWide();
  const { data: cells, error: failed } = useQuery(lanesQuery(job?.now));
  const all = cells?.reduce((sum, one) => sum + one.all, 0) ?? 0;
  const works = cells?.reduce((sum, one) => sum + one.works, 0) ?? 0;
  return (
    <Page maxWidth={1100}>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {ROUTES_WORDS.whoCanTalkWithWhom}
        </Words>
        <Words tone="second">
          {cells
            ? ROUTES_WORDS.ofPairsOfAddressesThereAnd({ works, all })
            : ROUTES_WORDS.everyPairIsWorkedOut}
        </Words>
      </View>
      <Refusals issues={issuesOf(error ?? failed)} />
      {job && cells ? (
        wide ? (
          <Grid {...{ plan: job.plan, cells }} />
        ) : (
          <FromOne {...{ plan: job.plan, cells }} />
        )
      ) : null}
    </Page>
  );
}

interface CellsProps {
  readonly plan: Plan;
  readonly cells: readonly LinkCell[];
}

const cellWords = (cell: LinkCell | undefined): string => {
  if (!cell || cell.all === 0) return '–';
  if (cell.works === cell.all) return ROUTES_WORDS.all;
  return cell.works === 0
    ? ROUTES_WORDS.none
    : ROUTES_WORDS.of({ works: cell.works, all: cell.all });
};

const toneOf = (cell: LinkCell | undefined) => {
  if (!cell || cell.all === 0) return 'second' as const;
  if (cell.works === cell.all) return 'moss' as const;
  return cell.works === 0 ? ('brick' as const) : ('ochre' as const);
};

const cellAt = (cells: readonly LinkCell[], from: string, to: string) =>
  cells.find((one) => one.from === from && one.to === to);

function Grid({ plan, cells }: CellsProps) {
  const { subnets } = plan;
  return (
    <View role="table" aria-label={ROUTES_WORDS.whoAsksStandsAtTheLeft} style={{ gap: 8 }}>
      <View role="row" style={{ flexDirection: 'row', gap: 8 }}>
        <View style={{ flex: 1 }} />
        {subnets.map(({ id, name }) => (
          <View role="columnheader" key={id} style={{ flex: 1 }}>
            <Words size="strong" lines={1}>
              {ROUTES_WORDS.to({ name })}
            </Words>
          </View>
        ))}
      </View>
      {subnets.map((from) => (
        <View role="row" key={from.id} style={{ flexDirection: 'row', gap: 8 }}>
          <View role="rowheader" style={{ flex: 1 }}>
            <Words size="strong" lines={1}>
              {ROUTES_WORDS.from({ name: from.name })}
            </Words>
          </View>
          {subnets.map((to) => {
            const cell = cellAt(cells, from.id, to.id);
            return (
              <View role="cell" key={to.id} style={{ flex: 1 }}>
                <Words size="second" tone={toneOf(cell)}>
                  {cellWords(cell)}
                </Words>
              </View>
            );
          })}
        </View>
      ))}
    </View>
  );
}

/** On a phone: one lane and whom it reaches. */
function FromOne({ plan, cells }: CellsProps) {
  const [wanted, setWanted] = useState('');
  const from = findSubnet(plan, wanted) ?? plan.subnets[0];
  if (!from) return null;
  return (
    <>
      <Pick
        label={ROUTES_WORDS.from2}
        options={plan.subnets.map(({ id, name }) => ({ value: id, title: name }))}
        value={from.id}
        onChange={setWanted}
      />
      <View>
        {plan.subnets.map((to) => {
          const cell = cellAt(cells, from.id, to.id);
          return (
            <Row key={to.id}>
              <View style={{ flexDirection: 'row', gap: 12 }}>
                <View style={{ flex: 1 }}>
                  <Words size="strong">{ROUTES_WORDS.to({ name: to.name })}</Words>
                </View>
                <Words size="second" tone={toneOf(cell)}>
                  {cellWords(cell)}
                </Words>
              </View>
            </Row>
          );
        })}
      </View>
    </>
  );
}
