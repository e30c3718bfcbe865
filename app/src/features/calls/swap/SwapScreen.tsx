import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { formatMac } from '@ipsonomo/core/net';
import {
  dhcpNameOf,
  isNamedOverLayer2,
  stationNameOf,
  swapOf,
  type Device,
  type Interface,
} from '@ipsonomo/core/plan';
import { SWAP_WORDS } from '@ipsonomo/language/screens/swap';
import { acts, useAct, useJob } from '../../../data';
import { AddressText, MacText, Notice, Page, Refusals, Row, Words } from '../../../parts';
import { issuesOf, lengthOf, placeOf } from '../../words';
import { StepWords } from './StepWords';

/** How a dead device is replaced, on one page that can be printed and hung in the cabinet. */
export function SwapScreen({ job, id }: { readonly job: string; readonly id: string }) {
  const { view, plan } = useJob(job).job ?? {};
  const device = plan?.devices.find((one) => one.interfaces.some((at) => at.id === id));
  const at = device?.interfaces.find((one) => one.id === id);
  const swap = plan && device && at && swapOf(plan, device, at);
  if (!view || !plan || !device || !at || !swap) return <Page>{null}</Page>;
  const subnet = view.subnets.find((one) => one.id === at.subnetId);
  const info = view.devices.find((one) => one.id === device.id);
  return (
    <Page action={<SwapAction job={job} at={at} needsLaptop={swap.needsLaptop} />}>
      <View style={{ gap: 4 }}>
        <Words size="second" tone="second">
          {[view.name, placeOf(device)].filter(Boolean).join(' · ')}
        </Words>
        <Words size="title" heading={1}>
          {SWAP_WORDS.swap({ title: device.title })}
        </Words>
        <AddressText
          still
          size="call"
          address={info?.interfaces.find((one) => one.id === id)?.address ?? ''}
          length={lengthOf(subnet?.network)}
        />
        <Before device={device} at={at} />
      </View>
      <Notice
        tone={swap.needsLaptop ? 'ochre' : 'moss'}
        title={
          swap.needsLaptop ? SWAP_WORDS.aLaptopWithIpsonomoIsNeeded : SWAP_WORDS.noLaptopIsNeeded
        }
      >
        {swap.needsLaptop
          ? SWAP_WORDS.itsWayTiesTheAddressTo
          : SWAP_WORDS.theSpareGetsTheOldAddress}
      </Notice>
      <View role="list" aria-label={SWAP_WORDS.stepsOfTheSwap}>
        {swap.steps.map((step, index) => (
          <Row key={`${step.kind} ${index}`} isItem>
            <View style={{ flexDirection: 'row', gap: 16 }}>
              <Words size="strong" tone="second">
                {index + 1}
              </Words>
              <View style={{ flex: 1, gap: 4 }}>
                <StepWords step={step} />
              </View>
            </View>
          </Row>
        ))}
      </View>
    </Page>
  );
}

/** The name that finds it again in its way. */
function knownAs(device: Device): string {
  if (device.way === 'dhcp-name') return dhcpNameOf(device);
  return isNamedOverLayer2(device.way) ? stationNameOf(device) : device.name;
}

/** What it was known by, for whoever holds the old one in the hand. */
function Before({ device, at }: { readonly device: Device; readonly at: Interface }) {
  return (
    <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap', alignItems: 'center' }}>
      <Words size="second" tone="second">
        {SWAP_WORDS.name({ device: knownAs(device) })}
      </Words>
      {at.mac === undefined ? null : <MacText mac={formatMac(at.mac)} size={15} />}
    </View>
  );
}

interface ActionProps {
  readonly job: string;
  readonly at: Interface;
  readonly needsLaptop: boolean;
}

/** The new device is in: what was bound to the old one is let go, and its call begins. */
function SwapAction({ job, at, needsLaptop }: ActionProps) {
  const router = useRouter();
  const unbind = useAct(acts.unbind, { job, interface: at.id });
  const toCall = () => router.navigate(`/job/${job}/call/${at.id}`);
  const begin = () =>
    at.mac === undefined ? toCall() : unbind.mutate(undefined, { onSuccess: toCall });
  return (
    <>
      <Refusals issues={issuesOf(unbind.error)} />
      <Button
        size="lg"
        title={needsLaptop ? SWAP_WORDS.theSpareIsInGiveIt : SWAP_WORDS.theSpareIsInLookFor}
        loading={unbind.isPending}
        onPress={begin}
      />
      <Button type="outline" title={SWAP_WORDS.printThisPage} onPress={() => globalThis.print()} />
    </>
  );
}
