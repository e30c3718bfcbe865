import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { ROLE_WORDS } from '@ipsonomo/language';
import { formatIpv4, parseIpv4, type Issue } from '@ipsonomo/core/net';
import {
  changeOf,
  defaultBands,
  docOf,
  findDoc,
  type BandRow,
  type Plan,
  type PlanDoc,
  type Subnet,
} from '@ipsonomo/core/plan';
import { readAddress } from '@ipsonomo/core/sheet';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';
import { useEdit } from '../../../data';
import { Field, Refusals, Words } from '../../../parts';
import { nextRole, type BandDraft } from './subnet-draft';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly subnet: Subnet;
  readonly bands: readonly BandDraft[];
  readonly issue: Issue | undefined;
  readonly onChange: (bands: readonly BandDraft[]) => void;
}

/** The bands of a subnet by role, and the template that new subnets get. */
export function Bands({ id, plan, doc, subnet, bands, issue, onChange }: Props) {
  const set = (index: number, band: BandDraft | undefined) =>
    onChange(bands.flatMap((one, at) => (at === index ? (band ? [band] : []) : [one])));
  const fromTemplate = () =>
    onChange(
      defaultBands(subnet.prefix, plan.settings.bandTemplate).map(({ role, first, last }) => ({
        ...{ role, first: formatIpv4(first), last: formatIpv4(last) },
      })),
    );
  return (
    <View style={{ gap: 6 }}>
      <Words size="strong" heading={3}>
        {SUBNET_WORDS.bands}
      </Words>
      {bands.map((band, index) => (
        <View
          key={index}
          style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end', flexWrap: 'wrap' }}
        >
          <View style={{ width: 150, paddingBottom: 24 }}>
            <Button
              type="outline"
              title={ROLE_WORDS[band.role]}
              onPress={() => set(index, { ...band, role: nextRole(band.role) })}
            />
          </View>
          <View style={{ flex: 1, minWidth: 130 }}>
            <Field
              label={SUBNET_WORDS.from}
              value={band.first}
              onChange={(first) => set(index, { ...band, first })}
              figures
            />
          </View>
          <View style={{ flex: 1, minWidth: 130 }}>
            <Field
              label={SUBNET_WORDS.to}
              value={band.last}
              onChange={(last) => set(index, { ...band, last })}
              figures
            />
          </View>
          <View style={{ paddingBottom: 24 }}>
            <Button type="clear" title={PLAN_WORDS.remove} onPress={() => set(index, undefined)} />
          </View>
        </View>
      ))}
      <Refusals issues={issue ? [issue] : []} />
      <Button
        type="clear"
        title={SUBNET_WORDS.anotherBand}
        onPress={() => onChange([...bands, { role: 'drives', first: '', last: '' }])}
      />
      <Button type="clear" title={SUBNET_WORDS.bandsAsNewSubnetsGetThem} onPress={fromTemplate} />
      <MakeTemplate {...{ id, plan, doc, subnet, bands }} />
    </View>
  );
}

/** These bands for every new subnet from now on. */
function MakeTemplate({ id, plan, doc, subnet, bands }: Omit<Props, 'issue' | 'onChange'>) {
  const edit = useEdit(id);
  const [isDone, setDone] = useState(false);
  const rows = rowsOf(subnet, bands);
  const thing = findDoc(doc, 'settings', plan.settings.id);
  if (!rows || !thing) return null;
  const make = () =>
    edit.mutate(
      {
        edits: changeOf('settings', thing, {
          bandTemplate:
            docOf('settings', { ...plan.settings, bandTemplate: rows })['bandTemplate'] ?? [],
        }),
        why: SUBNET_WORDS.changedTheBandsOfNewSubnets,
      },
      { onSuccess: () => setDone(true) },
    );
  return (
    <Button
      type="clear"
      title={
        isDone ? SUBNET_WORDS.newSubnetsGetTheseBandsNow : SUBNET_WORDS.giveNewSubnetsTheseBands
      }
      disabled={isDone}
      onPress={make}
    />
  );
}

/** Bands as last numbers of a /24; undefined where they are of a larger network or wrong. */
function rowsOf(subnet: Subnet, bands: readonly BandDraft[]): readonly BandRow[] | undefined {
  if (subnet.prefix.length < 24) return undefined;
  const rows = bands.flatMap(({ role, first, last }): readonly BandRow[] => {
    const [a, b] = [first, last].map((text) => {
      const short = readAddress(text, subnet);
      const read = short.ok ? parseIpv4(short.value) : short;
      return read.ok ? read.value & 255 : undefined;
    });
    return a === undefined || b === undefined ? [] : [{ role, first: a, last: b }];
  });
  return rows.length === bands.length ? rows : undefined;
}
