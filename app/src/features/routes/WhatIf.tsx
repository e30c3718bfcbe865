import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { View } from 'react-native';
import { formatIpv4, parseIpv4 } from '@ipsonomo/core/net';
import { applyEdits, changeOf, findDoc, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { ROUTES_WORDS } from '@ipsonomo/language/screens/routes';
import { whatIfQuery, type NeededRoute, type PlanNow } from '../../data';
import { Card, Field, Pick, Words, useDraft } from '../../parts';
import { interfaceOptions } from '../words';

interface Props {
  readonly now: PlanNow;
  readonly plan: Plan;
  readonly routes: readonly NeededRoute[];
}

/** One gateway changed in thought: which of the needed connections work then, and which no more. */
export function WhatIf({ now, plan, routes }: Props) {
  const [at, setAt] = useDraft(`what if of ${now.id}`);
  const [text, setText] = useDraft(`what if ${now.id}`);
  const gateway = parseIpv4(text.trim());
  const wanted = gateway.ok ? formatIpv4(gateway.value) : text.trim() === 'none' ? 'none' : '';
  const doc = useMemo(() => changed(now.doc, at, wanted), [now.doc, at, wanted]);
  const after = useQuery(whatIfQuery(now, doc, `${at} ${wanted}`)).data;
  const options = interfaceOptions(plan);
  const isTyped = text.trim() !== '' && text.trim() !== 'none';
  return (
    <Card>
      <Words size="strong" heading={2}>
        {ROUTES_WORDS.whatIf}
      </Words>
      <Pick label={ROUTES_WORDS.whoseGateway} options={options} value={at} onChange={setAt} />
      <Field
        label={ROUTES_WORDS.isThisOneOrNone}
        value={text}
        onChange={setText}
        issue={isTyped && !gateway.ok ? gateway.error : undefined}
        figures
      />
      {doc && after ? <Differs {...{ plan, before: routes, after }} /> : null}
    </Card>
  );
}

function changed(doc: PlanDoc, at: string, gateway: string): PlanDoc | undefined {
  const thing = findDoc(doc, 'interface', at);
  if (!thing || gateway === '') return undefined;
  const done = applyEdits(doc, changeOf('interface', thing, { gateway }));
  return done.ok ? done.value.doc : undefined;
}

interface DiffersProps {
  readonly plan: Plan;
  readonly before: readonly NeededRoute[];
  readonly after: readonly NeededRoute[];
}

function Differs({ plan, before, after }: DiffersProps) {
  const titles = new Map(plan.devices.map((one) => [one.id, one.title]));
  const owners = new Map(
    plan.devices.flatMap((one) => one.interfaces.map((each) => [each.id, one.title] as const)),
  );
  const keyOf = ({ from, to, why }: NeededRoute) => `${from} ${to} ${why}`;
  const was = new Map(before.map((one) => [keyOf(one), one.works]));
  const others = after.filter((one) => was.get(keyOf(one)) !== one.works);
  if (others.length === 0)
    return <Words size="second">{ROUTES_WORDS.noConnectionThatTheJobNeeds}</Words>;
  return (
    <View style={{ gap: 4 }}>
      {others.map((one) => (
        <Words key={keyOf(one)} size="second" tone={one.works === 'no' ? 'brick' : 'moss'}>
          {`${one.works === 'no' ? '×' : '✓'} ${titles.get(one.from) ?? ''} → ${owners.get(one.to) ?? ''}: ${
            one.works === 'no' ? one.text : ROUTES_WORDS.wouldWork
          }`}
        </Words>
      ))}
    </View>
  );
}
