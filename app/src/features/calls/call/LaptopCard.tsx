import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { formatIpv4, parseIpv4 } from '@ipsonomo/core/net';
import {
  laptopAddress,
  laptopCommands,
  LAPTOP_SYSTEMS,
  type LaptopSystem,
} from '@ipsonomo/core/plan';
import { adaptersQuery, changeSettings, usePresent, useField } from '../../../data';
import { AddressText, Card, Choice, Field, Words } from '../../../parts';
import type { Call } from './CallPage';
import { Command } from './Command';

/** What an adapter is called where nobody says otherwise (common practice, no source). */
const USUAL: Readonly<Record<LaptopSystem, string>> = {
  Windows: 'Ethernet',
  macOS: 'en0',
  Linux: 'eth0',
};

/** The technician's own laptop beside the device: which address, why, and the commands there and back. */
export function LaptopCard({ call, beside }: { readonly call: Call; readonly beside: string }) {
  const [isOpen, setOpen] = useState(false);
  if (!isOpen)
    return (
      <Button type="outline" title="Set your own laptop beside it" onPress={() => setOpen(true)} />
    );
  return <Opened call={call} beside={beside} />;
}

function Opened({ call, beside }: { readonly call: Call; readonly beside: string }) {
  const field = useField();
  const present = usePresent();
  const { data: adapters } = useQuery(adaptersQuery);
  const [system, setSystem] = useState<LaptopSystem>(systemHere());
  const [typed, setTyped] = useState<string>();
  const live = field?.source?.replace(/^live:/, '');
  const known = adapters?.find(({ name }) => name === live)?.name;
  const adapter = typed ?? (system === 'Linux' && known ? known : USUAL[system]);
  const target = parseIpv4(beside);
  const heard = [...present, ...(field?.voices ?? [])].flatMap(({ address }) => {
    const read = parseIpv4(address);
    return read.ok ? [read.value] : [];
  });
  const own = target.ok ? laptopAddress(call.plan, target.value, new Set(heard)) : undefined;
  if (!own)
    return (
      <Card>
        <Words>No address is free beside {beside}. Keep a band for service laptops.</Words>
      </Card>
    );
  const commands = laptopCommands(system, adapter, own);
  const address = formatIpv4(own.address);
  return (
    <Card>
      <Words size="second" tone="second">
        your laptop, beside {beside}
      </Words>
      <AddressText size="call" address={address} length={own.prefix.length} />
      <Words size="second">
        {own.subnet
          ? `Free in the plan of ${own.subnet.name}, and not heard on the wire.`
          : 'In the subnet of the factory address, and not heard on the wire.'}
      </Words>
      <Choice
        label="Its system"
        options={LAPTOP_SYSTEMS.map((value) => ({ value, title: value }))}
        value={system}
        onChange={setSystem}
      />
      <Field label="Its adapter" value={adapter} onChange={setTyped} figures />
      <Words size="strong">Set it</Words>
      {commands.set.map((line) => (
        <Command key={line} line={line} />
      ))}
      <Words size="strong">Set it back</Words>
      {commands.back.map((line) => (
        <Command key={line} line={line} />
      ))}
      {system === 'Linux' ? null : (
        <Words size="caption" tone="second">
          Not tried by us on this system: look at what it answers.
        </Words>
      )}
      <View>
        <Button
          type="outline"
          title="I have set it: remind me"
          onPress={() => changeSettings({ laptop: { address, back: commands.back } })}
        />
      </View>
    </Card>
  );
}

function systemHere(): LaptopSystem {
  const agent = globalThis.navigator?.userAgent ?? '';
  if (/Windows/.test(agent)) return 'Windows';
  return /Mac OS/.test(agent) ? 'macOS' : 'Linux';
}
