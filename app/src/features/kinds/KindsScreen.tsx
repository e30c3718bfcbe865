import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { type Kind, kindsOf } from '@ipsonomo/core/plan';
import { WAY_WORDS } from '@ipsonomo/language';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { KIND_FORM_WORDS } from '@ipsonomo/language/screens/kind-form';
import { KINDS_WORDS } from '@ipsonomo/language/screens/kinds';
import { chooseFile, useJob } from '../../data';
import { Beside, Field, Page, Row, Words, useDraft } from '../../parts';
import { useWide } from '../../theme';
import { SwitchReader } from '../switches';
import { CorrectKind } from './CorrectKind';
import { GiveOffers } from './GiveOffers';
import { KindFacts } from './KindFacts';
import { KindPapers } from './Papers';
import { ReadKind } from './ReadKind';
import { SharedKinds } from './SharedKinds';

/** The shelf of kinds: what all devices of one order number share; more come from description files. */
export function KindsScreen({ job: id }: { readonly job: string }) {
  const router = useRouter();
  const { job } = useJob(id);
  const wide = useWide();
  const [wanted, setWanted] = useDraft(`kinds ${id}`);
  const [open, setOpen] = useState<string>();
  const [file, setFile] = useState<File>();
  const words = wanted.trim().toLowerCase();
  const counts = useMemo(() => {
    const all = new Map<string, number>();
    for (const { kindId } of job?.plan.devices ?? []) all.set(kindId, (all.get(kindId) ?? 0) + 1);
    return all;
  }, [job?.plan.devices]);
  const kinds = (job ? kindsOf(job.plan) : []).filter((kind) => isMeant(kind, words));
  const choose = async () => setFile(await chooseFile('.eds,.xml,.gsdml'));
  const detailOf = (kind: Kind) =>
    job ? (
      <KindFacts kind={kind}>
        {kind.switches ? <SwitchReader face={kind.switches} network={kind.switches.base} /> : null}
        <KindPapers {...{ id, kind }} doc={job.doc} />
        <GiveOffers {...{ id, kind }} plan={job.plan} doc={job.doc} />
        <CorrectKind id={id} plan={job.plan} kind={kind} />
      </KindFacts>
    ) : null;
  // Where there is room one of them stands beside the list, whatever was touched last.
  const beside = wide && !file ? (kinds.find((kind) => kind.id === open) ?? kinds[0]) : undefined;
  const list = (
    <Page
      action={
        file ? null : (
          <>
            <Button
              type="outline"
              title={KIND_FORM_WORDS.aKindOfYourOwn}
              onPress={() => router.navigate(`/job/${id}/new-kind`)}
            />
            <Button
              size="lg"
              title={KINDS_WORDS.readADescriptionFile}
              onPress={() => void choose()}
            />
          </>
        )
      }
    >
      <Words size="title" heading={1}>
        {COMMON_WORDS.kinds}
      </Words>
      {job && file ? (
        <ReadKind
          key={`${file.name}|${file.lastModified}`}
          {...{ id, file }}
          plan={job.plan}
          doc={job.doc}
          onDone={() => setFile(undefined)}
        />
      ) : null}
      <Field label={KINDS_WORDS.aPartOfMakerNameOr} value={wanted} onChange={setWanted} />
      <View>
        {kinds.map((kind) => (
          <View key={kind.id}>
            <Row
              label={kind.name}
              selected={(beside?.id ?? open) === kind.id}
              onPress={() => setOpen(open === kind.id && !wide ? undefined : kind.id)}
            >
              <Words size="strong">{kind.name}</Words>
              <Words size="second" tone="second">
                {kind.maker} · {kind.ways.map(({ way }) => WAY_WORDS[way]).join(', ')} ·{' '}
                {KINDS_WORDS.device({ id: counts.get(kind.id) ?? 0 })}
              </Words>
            </Row>
            {open === kind.id && !beside ? detailOf(kind) : null}
          </View>
        ))}
      </View>
      {job ? <SharedKinds id={id} hasOwn={job.plan.kinds.length > 0} /> : null}
      {job && kinds.length === 0 ? <Words>{KINDS_WORDS.noKindOfTheShelfIs}</Words> : null}
    </Page>
  );
  if (!beside) return list;
  return (
    <Beside main="list" list={list}>
      <Page key={beside.id}>
        <Words size="device" heading={1}>
          {beside.name}
        </Words>
        {detailOf(beside)}
      </Page>
    </Beside>
  );
}

const isMeant = ({ maker, name, orderNumber }: Kind, words: string): boolean =>
  `${maker} ${name} ${orderNumber}`.toLowerCase().includes(words);
