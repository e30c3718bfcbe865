import { Button, ButtonGroup } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { Pressable, Text, View } from 'react-native';
import { formatPrefix } from '@ipsonomo/core/net';
import type { Plan } from '@ipsonomo/core/plan';
import { addressesOf, type Copying } from '@ipsonomo/core/reshape';
import { COPY_WORDS } from '@ipsonomo/language/screens/copy';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { useEdit, useJob } from '../../../data';
import { Card, Field, Notice, Page, Refusals, spacePresses, Words } from '../../../parts';
import { FIGURES, TOUCH, useColours } from '../../../theme';
import { issuesOf } from '../../words';
import { useCopy, type CopyForm } from './use-copy';

/** A machine again and again: its subnets and devices, apart by an offset or by realm. */
export function CopyScreen({ job: id }: { readonly job: string }) {
  const router = useRouter();
  const { job } = useJob(id);
  const form = useCopy(id, job?.plan, job?.doc, job?.snags);
  const edit = useEdit(id);
  const { made } = form;
  const copying = made?.ok ? made.value : undefined;
  const save = () => {
    if (copying)
      edit.mutate(
        {
          edits: copying.edits,
          why: COPY_WORDS.copiedDevicesTimes({ devices: form.devices.length, count: form.count }),
        },
        { onSuccess: () => (form.forget(), router.navigate(`/job/${id}/plan`)) },
      );
  };
  return (
    <Page
      action={
        <>
          <Words size="second" tone={form.newWrong > 0 ? 'brick' : 'second'}>
            {copying
              ? form.newWrong > 0
                ? COPY_WORDS.thisWouldMakeNewWrongSnag({ newWrong: form.newWrong })
                : COPY_WORDS.nothingNewIsWrongWithIt
              : COPY_WORDS.chooseWhatIsCopied}
          </Words>
          <Button
            size="lg"
            title={
              copying ? COPY_WORDS.addDevice({ copies: copying.copies.length }) : COPY_WORDS.copy
            }
            disabled={!copying}
            loading={edit.isPending}
            onPress={save}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        {PLAN_WORDS.copyAMachine}
      </Words>
      {job ? <What plan={job.plan} form={form} /> : null}
      <How form={form} />
      <Refusals issues={made && !made.ok ? [made.error] : []} />
      {copying ? <Preview copying={copying} /> : null}
      <Refusals issues={issuesOf(edit.error)} />
    </Page>
  );
}

function What({ plan, form }: { readonly plan: Plan; readonly form: CopyForm }) {
  return (
    <View style={{ gap: 6 }}>
      <Words size="second" tone="second">
        {COPY_WORDS.whichSubnetsAreTheMachinesOwn}
      </Words>
      {plan.subnets.map((subnet) => (
        <Tick
          key={subnet.id}
          title={subnet.name}
          detail={formatPrefix(subnet.prefix)}
          isOn={form.subnetIds.has(subnet.id)}
          onPress={() => form.toggleSubnet(subnet.id)}
        />
      ))}
      <Words size="second">{COPY_WORDS.deviceInThem({ devices: form.devices.length })}</Words>
    </View>
  );
}

interface TickProps {
  readonly title: string;
  readonly detail: string;
  readonly isOn: boolean;
  readonly onPress: () => void;
}

function Tick({ title, detail, isOn, onPress }: TickProps) {
  const colours = useColours();
  return (
    <Pressable
      role="checkbox"
      aria-checked={isOn}
      accessibilityLabel={title}
      onPress={onPress}
      {...spacePresses(onPress)}
      style={{
        minHeight: TOUCH,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        paddingHorizontal: 12,
        borderWidth: 1,
        borderRadius: 4,
        borderColor: isOn ? colours.plum : colours.line,
        backgroundColor: colours.surface,
      }}
    >
      <Words size="strong" tone={isOn ? 'plum' : 'second'}>
        {isOn ? '✓' : '·'}
      </Words>
      <View style={{ flex: 1 }}>
        <Words>{title}</Words>
      </View>
      <Text style={{ fontFamily: FIGURES, color: colours.second }}>{detail}</Text>
    </Pressable>
  );
}

function How({ form }: { readonly form: CopyForm }) {
  return (
    <Card>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Field
            label={COPY_WORDS.howManyCopies}
            value={form.countText}
            onChange={form.setCount}
            numeric
          />
        </View>
        <View style={{ flex: 1 }}>
          <Field
            label={COPY_WORDS.numberOfTheFirst}
            value={form.first}
            onChange={form.setFirst}
            numeric
          />
        </View>
      </View>
      <ButtonGroup
        buttons={[COPY_WORDS.otherAddresses, COPY_WORDS.sameAddressesOwnRealm]}
        selectedIndex={form.by === 'offset' ? 0 : 1}
        onPress={(index: number) => form.setBy(index === 0 ? 'offset' : 'realm')}
      />
      {form.by === 'offset' ? (
        <Field
          label={COPY_WORDS.everyCopySoManyAddressesFurther}
          value={form.offset}
          onChange={form.setOffset}
          numeric
        />
      ) : null}
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Field
            label={COPY_WORDS.inNamesThis}
            value={form.find}
            onChange={form.setFind}
            placeholder={PLAN_WORDS.fh2}
          />
        </View>
        <View style={{ flex: 1 }}>
          <Field
            label={COPY_WORDS.becomes({ count: '{n}' })}
            value={form.replace}
            onChange={form.setReplace}
            placeholder="FH{n}"
          />
        </View>
      </View>
    </Card>
  );
}

const MOST = 40;

function Preview({ copying }: { readonly copying: Copying }) {
  const colours = useColours();
  const subnets = useMemo(
    () => copying.subnets.map(({ subnet }) => `${subnet.name} ${formatPrefix(subnet.prefix)}`),
    [copying],
  );
  return (
    <View style={{ gap: 6 }}>
      <Words size="strong" heading={2}>
        {COPY_WORDS.whatComesOfIt}
      </Words>
      {subnets.length > 0 ? <Notice tone="plain">{subnets.join(', ')}</Notice> : null}
      {copying.copies.slice(0, MOST).map(({ copy, device }) => (
        <View
          key={device.id}
          style={{
            flexDirection: 'row',
            gap: 12,
            borderBottomWidth: 1,
            borderBottomColor: colours.line,
            paddingVertical: 6,
          }}
        >
          <Words size="caption" tone="second">
            {copy}
          </Words>
          <View style={{ flex: 1 }}>
            <Words size="second">{device.title}</Words>
            <Words size="caption" tone="second">
              {device.name}
            </Words>
          </View>
          <Text style={{ fontFamily: FIGURES, color: colours.ink }}>{addressesOf(device)}</Text>
        </View>
      ))}
      {copying.copies.length > MOST ? (
        <Words size="second" tone="second">
          {COPY_WORDS.andMore({ copies: copying.copies.length - MOST })}
        </Words>
      ) : null}
    </View>
  );
}
