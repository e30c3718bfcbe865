import { Button } from '@rneui/themed';
import { useState } from 'react';
import { sentenceOf, switchWords } from '@ipsonomo/language';
import { must, type Prefix, type Result } from '@ipsonomo/core/net';
import {
  placesOf,
  readSwitches,
  type SwitchFace as Face,
  type SwitchSetting,
} from '@ipsonomo/core/switches';
import { SWITCHES_WORDS } from '@ipsonomo/language/screens/switches';
import { Card, Notice, SwitchFace, Words } from '../../parts';

interface Props {
  readonly face: Face;
  /** How the plan means them to stand. */
  readonly wanted: Result<SwitchSetting>;
  readonly network: Prefix | undefined;
}

/** The switches in the position they must have; the other way, what is seen on the device is read. */
export function SwitchCard({ face, wanted, network }: Props) {
  const [isReading, setReading] = useState(false);
  return (
    <Card>
      {wanted.ok ? (
        <>
          <SwitchFace face={face} positions={wanted.value.positions} />
          <Words size="second">{switchWords(face, wanted.value, network)}</Words>
        </>
      ) : (
        <Notice tone="brick" title={SWITCHES_WORDS.theSwitchesCannotSayWhatIs}>
          {sentenceOf(wanted.error)}
        </Notice>
      )}
      <Button
        type="clear"
        title={
          isReading ? SWITCHES_WORDS.enoughOfReading : SWITCHES_WORDS.theyStandOtherwiseReadThem
        }
        onPress={() => setReading(!isReading)}
      />
      {isReading ? (
        <SwitchReader
          {...{ face, network }}
          wanted={wanted.ok ? wanted.value.positions : undefined}
        />
      ) : null}
    </Card>
  );
}

interface ReaderProps {
  readonly face: Face;
  readonly network: Prefix | undefined;
  readonly wanted?: readonly number[] | undefined;
}

/** The drawing is set as the device is seen; a sentence says what it means. */
export function SwitchReader({ face, network, wanted }: ReaderProps) {
  const [positions, setPositions] = useState<readonly number[]>(() =>
    Array.from({ length: placesOf(face) }, () => 0),
  );
  const reading = must(readSwitches(face, positions));
  const isAsPlanned = wanted?.every((one, at) => one === positions[at]) ?? false;
  return (
    <>
      <Words size="second" tone="second">
        {SWITCHES_WORDS.setTheDrawingAsYouSee}
      </Words>
      <SwitchFace {...{ face, positions, wanted }} onTurn={setPositions} />
      <Notice tone={reading.act === undefined ? 'brick' : isAsPlanned ? 'moss' : 'plain'}>
        {switchWords(face, reading, network)}
      </Notice>
    </>
  );
}
