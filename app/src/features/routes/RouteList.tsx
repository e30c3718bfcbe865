import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Plan } from '@ipsonomo/core/plan';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { ROUTES_WORDS } from '@ipsonomo/language/screens/routes';
import { foundRoutesQuery, neededRoutesQuery, useJob, type NeededRoute } from '../../data';
import { Card, Notice, Page, Pick, Refusals, Row, Words, useDraft } from '../../parts';
import { useWide } from '../../theme';
import { interfaceOptions, issuesOf } from '../words';
import { settingsFound } from './settings-found';
import { WhatIf } from './WhatIf';

interface Props {
  readonly job: string;
  /** Those two that stand beside the list. */
  readonly chosen?: Pair | undefined;
}

/** Which of the connections the job needs work, by the plan; and any two, there and back. */
export function RouteList({ job: id, chosen }: Props) {
  const { job, error } = useJob(id);
  const router = useRouter();
  const needed = useQuery(neededRoutesQuery(job?.now));
  const routes = needed.data ?? [];
  const bad = routes.filter(({ works }) => works !== 'yes');
  const good = routes.filter(({ works }) => works === 'yes');
  const found = job ? settingsFound(job.plan, job.view) : new Map();
  const onSite = useQuery(foundRoutesQuery(job?.now, found)).data ?? [];
  const otherwise = onSite.filter(
    (one) => one.works !== 'yes' && !bad.some(({ from, to }) => from === one.from && to === one.to),
  );
  return (
    <Page maxWidth={1100}>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {routes.length === 0
            ? COMMON_WORDS.routesThereAndBack
            : ROUTES_WORDS.ofConnectionWork({ good: good.length, routes: routes.length })}
        </Words>
        <Words tone="second">{ROUTES_WORDS.byThePlanEachControllerTo}</Words>
      </View>
      <Refusals issues={issuesOf(error ?? needed.error)} />
      {job ? (
        <>
          <Routes
            {...{ id, chosen, plan: job.plan }}
            title={ROUTES_WORDS.notThereAndBack}
            routes={bad}
          />
          <Routes
            {...{ id, chosen, plan: job.plan }}
            title={ROUTES_WORDS.byThePlanTheyWorkAs}
            routes={found.size > 0 ? otherwise : []}
          />
          {needed.data?.length === 0 ? (
            <Notice tone="plain" title={ROUTES_WORDS.noDeviceSaysWhoItsController}>
              {ROUTES_WORDS.giveDevicesTheirControllerInThe}
            </Notice>
          ) : null}
          <AnyTwo {...{ id, plan: job.plan }} />
          <WhatIf now={job.now} plan={job.plan} routes={routes} />
          <Button
            type="outline"
            title={ROUTES_WORDS.whoCanTalkWithWhom}
            onPress={() => router.navigate(`/job/${id}/lanes`)}
          />
          <Routes
            {...{ id, chosen, plan: job.plan }}
            title={ROUTES_WORDS.thereAndBack}
            routes={good}
          />
        </>
      ) : null}
    </Page>
  );
}

/** Of the device that asks, and of the interface that is asked. */
export type Pair = Pick<NeededRoute, 'from' | 'to'>;

interface RoutesProps {
  readonly id: string;
  readonly chosen: Pair | undefined;
  readonly plan: Plan;
  readonly title: string;
  readonly routes: readonly NeededRoute[];
}

function Routes({ id, chosen, plan, title, routes }: RoutesProps) {
  const wide = useWide();
  const router = useRouter();
  if (routes.length === 0) return null;
  const titles = new Map(plan.devices.map((one) => [one.id, one.title]));
  const owners = new Map(
    plan.devices.flatMap((one) => one.interfaces.map((at) => [at.id, one.title] as const)),
  );
  return (
    <View>
      <Words size="strong" heading={2}>
        {title} · {routes.length}
      </Words>
      {routes.map((one) => {
        const [from, to] = [titles.get(one.from) ?? '', owners.get(one.to) ?? ''];
        return (
          <Row
            key={`${one.from} ${one.to} ${one.why}`}
            label={ROUTES_WORDS.to3({ from, to })}
            selected={one.from === chosen?.from && one.to === chosen.to}
            onPress={() =>
              router.navigate(`/job/${id}/there-and-back?from=${one.from}&to=${one.to}`)
            }
          >
            <View style={wide ? { flexDirection: 'row', gap: 16, alignItems: 'center' } : null}>
              <View style={wide ? { flex: 2 } : null}>
                <Words size="strong">
                  {from} → {to}
                </Words>
              </View>
              <View style={wide ? { flex: 3 } : null}>
                <Words size="second" tone={TONES[one.works]}>
                  {MARKS[one.works]} {one.works === 'yes' ? one.title : one.text}
                </Words>
              </View>
            </View>
          </Row>
        );
      })}
    </View>
  );
}

const TONES = { yes: 'moss', 'not-by-itself': 'ochre', no: 'brick' } as const;
const MARKS = { yes: '✓', 'not-by-itself': '!', no: '×' } as const;

/** From any device to any address of the plan. */
function AnyTwo({ id, plan }: { readonly id: string; readonly plan: Plan }) {
  const router = useRouter();
  const [from, setFrom] = useDraft(`way from ${id}`);
  const [to, setTo] = useDraft(`way to ${id}`);
  const devices = plan.devices.map((one) => ({ value: one.id, title: one.title }));
  const interfaces = interfaceOptions(plan);
  return (
    <Card>
      <Words size="strong" heading={2}>
        {ROUTES_WORDS.anyTwo}
      </Words>
      <Pick label={ROUTES_WORDS.from2} options={devices} value={from} onChange={setFrom} />
      <Pick label={ROUTES_WORDS.to2} options={interfaces} value={to} onChange={setTo} />
      <Button
        type="outline"
        title={ROUTES_WORDS.walkItInThePlan}
        disabled={from === '' || to === ''}
        onPress={() => router.navigate(`/job/${id}/there-and-back?from=${from}&to=${to}`)}
      />
    </Card>
  );
}
