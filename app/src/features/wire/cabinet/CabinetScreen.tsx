import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import type { CabinetDevice, CabinetFault } from '@ipsonomo/core/api';
import { CABINET_WORDS } from '@ipsonomo/language/screens/cabinet';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { cabinetQuery, useCabinetAct, useJobHere } from '../../../data';
import { Choice, Field, MacText, Page, Row, SwitchFace, Words, useDraft } from '../../../parts';
import { useColours } from '../../../theme';

/** Standing at the cabinets of the practice site: power, cable, label and lamp of each device. */
export function CabinetScreen() {
  const { data } = useQuery(cabinetQuery(useJobHere()));
  const act = useCabinetAct();
  const [find, setFind] = useDraft('at the cabinets');
  const wanted = find.trim().toLowerCase();
  const devices = (data?.devices ?? []).filter(
    (one) => wanted === '' || `${one.title} ${one.place}`.toLowerCase().includes(wanted),
  );
  return (
    <Page>
      <Words size="title" heading={1}>
        {CABINET_WORDS.atTheCabinets}
      </Words>
      <Words tone="second">{CABINET_WORDS.thePracticeSiteAsYouWould}</Words>
      <Choice
        label={CABINET_WORDS.yourCableIsPluggedInto}
        options={(data?.sockets ?? []).map(({ id, title }) => ({ value: id, title }))}
        value={data?.socket}
        onChange={(segment) => act.mutate({ kind: 'socket', segment })}
      />
      <View style={{ flexDirection: 'row', gap: 10 }}>
        {([false, true] as const).map((on) => (
          <Button
            key={String(on)}
            type="outline"
            title={on ? CABINET_WORDS.everythingOn : CABINET_WORDS.everythingOff}
            onPress={() => act.mutate({ kind: 'power-all', on })}
          />
        ))}
      </View>
      <Field label={CABINET_WORDS.findADevice} value={find} onChange={setFind} />
      <View>
        {devices.map((device) => (
          <CabinetRow key={device.id} device={device} />
        ))}
      </View>
      <Faults faults={data?.faults ?? []} />
      <Button
        type="outline"
        title={CABINET_WORDS.putTheWholeSiteBackAs}
        onPress={() => act.mutate({ kind: 'reset' })}
      />
    </Page>
  );
}

const LAMP_WORDS: Readonly<Record<CabinetDevice['lamp'], string>> = {
  off: CABINET_WORDS.lampOff,
  starting: CABINET_WORDS.lampFlickersStarting,
  asking: CABINET_WORDS.lampBlinksAsksForAnAddress,
  waiting: CABINET_WORDS.lampBlinksSlowlyNoAddress,
  flashing: CABINET_WORDS.lampFlashesSomebodyAskedItTo,
  steady: CABINET_WORDS.lampSteadyHasAnAddress,
  conflict: CABINET_WORDS.lampRedItsAddressIsTaken,
};

function CabinetRow({ device }: { readonly device: CabinetDevice }) {
  const colours = useColours();
  const act = useCabinetAct();
  const { id, lamp, face, positions } = device;
  const [isOpen, setOpen] = useState(false);
  const [isTyping, setTyping] = useState(false);
  const lit =
    lamp === 'steady' ? colours.moss : lamp === 'conflict' ? colours.brick : colours.ochre;
  return (
    <Row>
      <View style={{ gap: 6 }}>
        <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 8 }}>
          <View style={{ flex: 1 }}>
            <Words size="strong">{device.title}</Words>
            <Words size="second" tone="second">
              {device.place} · {device.kind}
            </Words>
          </View>
          <View style={{ alignItems: 'flex-end' }}>
            <Words size="caption" tone="second">
              {CABINET_WORDS.label}
            </Words>
            <MacText mac={device.label} size={15} />
          </View>
        </View>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <View
            style={{
              width: 12,
              height: 12,
              borderRadius: 6,
              borderWidth: 1.5,
              borderColor: colours.ink,
              backgroundColor: lamp === 'off' ? 'transparent' : lit,
            }}
          />
          <Words size="second">
            {[LAMP_WORDS[lamp], device.isTypedInto && device.display].filter(Boolean).join(' · ')}
          </Words>
        </View>
        <CabinetActs
          device={device}
          isOpen={isOpen}
          onOpen={() => setOpen(!isOpen)}
          onType={() => setTyping(!isTyping)}
        />
        {isTyping ? <TypeInto device={device} /> : null}
        {face && isOpen ? (
          <>
            <SwitchFace
              {...{ face, positions }}
              onTurn={(next) => act.mutate({ kind: 'turn', device: id, positions: next })}
            />
            <Words size="second" tone="second">
              {CABINET_WORDS.theyAreReadWhenItGets}
            </Words>
          </>
        ) : null}
      </View>
    </Row>
  );
}

interface ActsProps {
  readonly device: CabinetDevice;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
  readonly onType: () => void;
}

/** What hands can do at it. */
function CabinetActs({ device, isOpen, onOpen, onType }: ActsProps) {
  const act = useCabinetAct();
  const { id, power, cable, face } = device;
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      <Button
        type="outline"
        title={power ? CABINET_WORDS.powerOff : CABINET_WORDS.powerOn}
        accessibilityLabel={CABINET_WORDS.otherTitle({ power, title: device.title })}
        onPress={() => act.mutate({ kind: 'power', device: id, on: !power })}
      />
      <Button
        type="outline"
        title={cable ? CABINET_WORDS.pullTheCable : CABINET_WORDS.plugTheCableIn}
        accessibilityLabel={CABINET_WORDS.pullTheCable2({ cable, title: device.title })}
        onPress={() => act.mutate({ kind: 'cable', device: id, on: !cable })}
      />
      {face ? (
        <Button
          type="outline"
          title={isOpen ? CABINET_WORDS.leaveItsSwitches : CABINET_WORDS.turnItsSwitches}
          accessibilityLabel={CABINET_WORDS.otherItsSwitchesTitle({ isOpen, title: device.title })}
          onPress={onOpen}
        />
      ) : null}
      {device.isTypedInto ? (
        <Button
          type="outline"
          title={CABINET_WORDS.typeAnAddressIntoIt}
          accessibilityLabel={CABINET_WORDS.typeAnAddressIntoIt2({ title: device.title })}
          onPress={onType}
        />
      ) : null}
      {device.ownSteps.length > 0 ? (
        <Button
          type="outline"
          title={CABINET_WORDS.doItsOwnStep}
          accessibilityLabel={CABINET_WORDS.doItsOwnStep2({ title: device.title })}
          onPress={() => act.mutate({ kind: 'own-step', device: id })}
        />
      ) : null}
      {device.setBack.length > 0 ? (
        <Button
          type="outline"
          title={COMMON_WORDS.setItBack}
          accessibilityLabel={CABINET_WORDS.setItBack({ title: device.title })}
          onPress={() => act.mutate({ kind: 'set-back', device: id })}
        />
      ) : null}
    </View>
  );
}

/** What is typed on its keypad, or written by a tool or a card; it is read when it gets power. */
function TypeInto({ device }: { readonly device: CabinetDevice }) {
  const act = useCabinetAct();
  const [address, setAddress, forget] = useDraft(`type into ${device.id}`);
  return (
    <>
      <Field
        label={CABINET_WORDS.addressOn({ title: device.title })}
        value={address}
        onChange={setAddress}
        figures
      />
      <Button
        type="outline"
        title={CABINET_WORDS.storeItInTheDevice}
        disabled={address.trim() === ''}
        onPress={() => {
          forget();
          act.mutate({ kind: 'type', device: device.id, address: address.trim() });
        }}
      />
      <Words size="second" tone="second">
        {CABINET_WORDS.itIsUsedAfterPowerOff}
      </Words>
    </>
  );
}

/** What can go wrong on a real site, to be met on this one first. */
function Faults({ faults }: { readonly faults: readonly CabinetFault[] }) {
  const act = useCabinetAct();
  const on = faults.filter((one) => one.on).length;
  return (
    <View>
      <Words size="strong" heading={2}>
        {on === 0
          ? CABINET_WORDS.makeSomethingGoWrong
          : CABINET_WORDS.ofThingsGoWrong({ on, faults: faults.length })}
      </Words>
      {faults.map((fault) => (
        <Row
          key={fault.id}
          label={CABINET_WORDS.putRight({ on: fault.on, title: fault.title })}
          selected={fault.on}
          onPress={() => act.mutate({ kind: 'fault', fault: fault.id, on: !fault.on })}
        >
          <View style={{ flexDirection: 'row', gap: 10 }}>
            <Words size="strong" tone={fault.on ? 'brick' : 'second'}>
              {fault.on ? '×' : '–'}
            </Words>
            <View style={{ flex: 1 }}>
              <Words>{fault.title}</Words>
            </View>
          </View>
        </Row>
      ))}
    </View>
  );
}
