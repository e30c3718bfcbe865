import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { WrittenTick } from '@ipsonomo/core/api';
import { formatIpv4 } from '@ipsonomo/core/net';
import { interfacesOf, type PlannedInterface } from '@ipsonomo/core/plan';
import { writtenPlaces, type WrittenPlace } from '@ipsonomo/core/written';
import { PLACE_WORDS } from '@ipsonomo/language/hand-over-files';
import { WRITTEN_WORDS } from '@ipsonomo/language/screens/written';
import { acts, reading, useActOn, useJob } from '../../../data';
import { Field, Page, Refusals, Row, Toggle, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';

/** Everywhere that an address or a name stands, device by device, to tick off after a renumbering. */
export function WrittenScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const { data: ticks = [], error: unread } = useQuery(reading(acts.listWrittenTicks, { job: id }));
  const say = useActOn(acts.sayWritten);
  const [wanted, setWanted] = useDraft(`written ${id}`);
  const [open, setOpen] = useState<string>();
  const words = wanted.trim().toLowerCase();
  const byPlace = useMemo(
    () => new Map(ticks.map((tick) => [`${tick.interface} ${tick.place}`, tick])),
    [ticks],
  );
  const all = job ? interfacesOf(job.plan).filter((one) => isMeant(one, words)) : [];
  const tickOf = (at: string, { key, value }: WrittenPlace): WrittenTick | undefined => {
    const tick = byPlace.get(`${at} ${key}`);
    // What was said of another value counts no longer.
    return tick?.is === 'yes' && tick.value === value ? tick : undefined;
  };
  const toggle = (at: string, place: WrittenPlace) => {
    const { key, holder, value } = place;
    const is = tickOf(at, place) ? 'no' : 'yes';
    const body = { place: key, whose: holder, value, is } as const;
    say.mutate({ params: { job: id, interface: at }, body });
  };
  return (
    <Page>
      <Words size="title" heading={1}>
        {WRITTEN_WORDS.whereAddressesAreWritten}
      </Words>
      <Words tone="second">{WRITTEN_WORDS.everywhereItStands}</Words>
      <Field label={WRITTEN_WORDS.aPartOfItsNameOrAddress} value={wanted} onChange={setWanted} />
      <Refusals issues={issuesOf(error ?? unread ?? say.error)} />
      <View>
        {job
          ? all
              .slice(0, SHOWN)
              .map((one) => (
                <Places
                  key={one.at.id}
                  one={one}
                  isOpen={open === one.at.id}
                  places={writtenPlaces(job.plan, one)}
                  tickOf={(place) => tickOf(one.at.id, place)}
                  onOpen={() => setOpen(open === one.at.id ? undefined : one.at.id)}
                  onToggle={(place) => toggle(one.at.id, place)}
                />
              ))
          : null}
      </View>
      {all.length > SHOWN ? (
        <Words tone="second">{WRITTEN_WORDS.andMore({ count: all.length - SHOWN })}</Words>
      ) : null}
    </Page>
  );
}

/** More than so many are found by a part of their name. */
const SHOWN = 60;

const isMeant = ({ device, at }: PlannedInterface, words: string): boolean =>
  `${device.title} ${device.name} ${device.cabinet} ${formatIpv4(at.address)}`
    .toLowerCase()
    .includes(words);

interface PlacesProps {
  readonly one: PlannedInterface;
  readonly places: readonly WrittenPlace[];
  readonly isOpen: boolean;
  readonly tickOf: (place: WrittenPlace) => WrittenTick | undefined;
  readonly onOpen: () => void;
  readonly onToggle: (place: WrittenPlace) => void;
}

function Places({ one, places, isOpen, tickOf, onOpen, onToggle }: PlacesProps) {
  const left = places.filter((place) => !tickOf(place)).length;
  return (
    <View>
      <Row label={one.device.title} selected={isOpen} onPress={onOpen}>
        <Words size="strong">{one.device.title}</Words>
        <Words size="second" tone={left === 0 ? 'moss' : 'second'}>
          {`${formatIpv4(one.at.address)} · ${WRITTEN_WORDS.left({ left, all: places.length })}`}
        </Words>
      </Row>
      {isOpen
        ? places.map((place) => {
            const tick = tickOf(place);
            return (
              <View key={place.key} style={{ gap: 2, paddingVertical: 6 }}>
                <Toggle
                  title={[PLACE_WORDS[place.kind], place.holder].filter(Boolean).join(': ')}
                  isOn={tick !== undefined}
                  onPress={() => onToggle(place)}
                />
                <Words size="caption" tone="second">
                  {tick
                    ? WRITTEN_WORDS.tickedBy({
                        ...{ value: place.value, person: tick.person },
                        at: format(tick.at, 'd MMM HH:mm'),
                      })
                    : WRITTEN_WORDS.hasToStand({ value: place.value })}
                </Words>
              </View>
            );
          })
        : null}
    </View>
  );
}
