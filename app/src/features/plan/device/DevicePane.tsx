import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { snagSentence, WAY_WORDS } from '@ipsonomo/language';
import { findKind } from '@ipsonomo/core/plan';
import { snagKey } from '@ipsonomo/core/snags';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { useJob } from '../../../data';
import { AddressText, Card, MacText, Notice, Page, StageNotches, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { PaperList } from '../../kinds';
import { DeviceSwitches } from '../../switches';
import { lengthOf, placeOf } from '../../words';
import { Change } from './Change';
import { DeviceLabel } from './DeviceLabel';
import { Seen } from './Seen';

/** One device of the plan: what is wanted, what was seen, and its correction. */
export function DevicePane({ job, device: id }: { readonly job: string; readonly device: string }) {
  const { job: now } = useJob(job);
  const { view, plan, doc } = now ?? {};
  const wide = useWide();
  const router = useRouter();
  const devices = view?.devices ?? [];
  const device = devices.find((one) => one.id === id);
  const at = device?.interfaces[0];
  if (!view || !plan || !doc || !device || !at) return <Page>{null}</Page>;
  const subnet = view.subnets.find((one) => one.id === at.subnetId);
  const kind = findKind(plan, device.kindId);
  return (
    <Page
      action={
        <Button
          size="lg"
          type={wide ? 'outline' : 'solid'}
          title={at.stage === 'proven' ? PLAN_WORDS.seeItsCall : COMMON_WORDS.goToItsCall}
          onPress={() => router.navigate(`/job/${job}/call/${at.id}`)}
        />
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="second" tone="second">
          {[placeOf(device), WAY_WORDS[device.way]].filter(Boolean).join(' · ')}
        </Words>
        <Words size="device" heading={wide ? 2 : 1}>
          {device.title}
        </Words>
        <AddressText size="call" address={at.address} length={lengthOf(subnet?.network)} />
        <StageNotches notches={at.notches} size={18} />
      </View>
      {device.snags.map((snag) => (
        <Notice key={snagKey(snag)} tone={snag.severity === 'wrong' ? 'brick' : 'ochre'}>
          {snagSentence(snag)}
        </Notice>
      ))}
      <Card>
        <Fact name={PLAN_WORDS.hostName2}>{device.name}</Fact>
        <Fact name={PLAN_WORDS.kind2}>{kind ? `${kind.maker} · ${kind.name}` : device.kindId}</Fact>
        <Fact name={PLAN_WORDS.subnet}>{`${subnet?.name} · ${subnet?.network}`}</Fact>
        <Fact name="MAC">{at.mac ? <MacText mac={at.mac} /> : PLAN_WORDS.awaited}</Fact>
        {kind && kind.papers.length > 0 ? (
          <Fact name={PLAN_WORDS.papers}>
            <PaperList job={job} papers={kind.papers} />
          </Fact>
        ) : null}
      </Card>
      <DeviceSwitches {...{ plan }} deviceId={device.id} interfaceId={at.id} />
      <Change key={device.id} {...{ job, device, at, plan, doc }} />
      <DeviceLabel
        key={at.id}
        {...{ job, interfaceId: at.id }}
        isWrong={device.snags.some(({ severity }) => severity === 'wrong')}
      />
      <Button
        type="outline"
        title={PLAN_WORDS.itIsDeadSwapIt}
        onPress={() => router.navigate(`/job/${job}/swap/${at.id}`)}
      />
      <Button
        type="outline"
        title={PLAN_WORDS.everythingOfThisDevice}
        onPress={() => router.navigate(`/job/${job}/thing/device/${device.id}`)}
      />
      <Seen job={job} at={at} />
    </Page>
  );
}

function Fact({ name, children }: { readonly name: string; readonly children: React.ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', gap: 12 }}>
      <View style={{ width: 92 }}>
        <Words size="second" tone="second">
          {name}
        </Words>
      </View>
      <View style={{ flex: 1 }}>
        {typeof children === 'string' ? <Words size="second">{children}</Words> : children}
      </View>
    </View>
  );
}
