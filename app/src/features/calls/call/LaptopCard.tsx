import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { adapterOf } from '@ipsonomo/core/api';
import { formatIpv4, parseIpv4 } from '@ipsonomo/core/net';
import {
  laptopAddress,
  laptopCommands,
  LAPTOP_SYSTEMS,
  type LaptopSystem,
} from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
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
      <Button
        type="outline"
        title={CALL_WORDS.setYourOwnLaptopBesideIt}
        onPress={() => setOpen(true)}
      />
    );
  return <Opened call={call} beside={beside} />;
}

function Opened({ call, beside }: { readonly call: Call; readonly beside: string }) {
  const field = useField();
  const present = usePresent();
  const { data: adapters } = useQuery(adaptersQuery);
  const [system, setSystem] = useState<LaptopSystem>(systemHere());
  const [typed, setTyped] = useState<string>();
  const live = adapterOf(field?.source);
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
        <Words>{CALL_WORDS.noAddressIsFreeBesideKeep({ beside })}</Words>
      </Card>
    );
  const commands = laptopCommands(system, adapter, own);
  const address = formatIpv4(own.address);
  return (
    <Card>
      <Words size="second" tone="second">
        {CALL_WORDS.yourLaptopBeside({ beside })}
      </Words>
      <AddressText size="call" address={address} length={own.prefix.length} />
      <Words size="second">
        {own.subnet
          ? CALL_WORDS.freeInThePlanOfAnd({ name: own.subnet.name })
          : CALL_WORDS.inTheSubnetOfTheFactory}
      </Words>
      <Choice
        label={CALL_WORDS.itsSystem}
        options={LAPTOP_SYSTEMS.map((value) => ({ value, title: value }))}
        value={system}
        onChange={setSystem}
      />
      <Field label={CALL_WORDS.itsAdapter} value={adapter} onChange={setTyped} figures />
      <Words size="strong">{CALL_WORDS.setIt}</Words>
      {commands.set.map((line) => (
        <Command key={line} line={line} />
      ))}
      <Words size="strong">{COMMON_WORDS.setItBack}</Words>
      {commands.back.map((line) => (
        <Command key={line} line={line} />
      ))}
      {system === 'Linux' ? null : (
        <Words size="caption" tone="second">
          {CALL_WORDS.notTriedByUsOnThis}
        </Words>
      )}
      <View>
        <Button
          type="outline"
          title={CALL_WORDS.iHaveSetItRemindMe}
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
