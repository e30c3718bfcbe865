import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { formatMac, parseLabel } from '@ipsonomo/core/net';
import { labelsIn } from '@ipsonomo/core/plan';
import { LABEL_WORDS } from '@ipsonomo/language/screens/label';
import { chooseFile, readPicture } from '../../../data';
import { Field, Notice } from '../../../parts';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (typed: string) => void;
  /** A scanner ends what it reads with Enter. */
  readonly onEnter?: () => void;
}

/** A MAC from a label: typed in any notation, or read from a picture of its barcodes. */
export function LabelField({ label, value, onChange, onEnter }: Props) {
  const [found, setFound] = useState<readonly string[]>([]);
  const [trouble, setTrouble] = useState('');
  const [isReading, setReading] = useState(false);
  const read = value === '' ? undefined : parseLabel(value);
  const take = async () => {
    const picture = await chooseFile('image/*');
    if (!picture) return;
    setReading(true);
    setTrouble('');
    const texts = await readPicture(picture).catch(() => undefined);
    setReading(false);
    const macs = labelsIn(texts ?? []).map((mac) => formatMac(mac).toUpperCase());
    setFound(macs.length > 1 ? macs : []);
    if (macs.length === 1) onChange(macs[0] ?? '');
    if (macs.length === 0) setTrouble(troubleOf(texts));
  };
  return (
    <View style={{ gap: 8 }}>
      <Field
        label={label}
        value={value}
        onChange={onChange}
        onEnter={onEnter}
        issue={read && !read.ok && value.length >= 12 ? read.error : undefined}
        figures
      />
      <Button
        type="outline"
        title={LABEL_WORDS.readItFromAPicture}
        loading={isReading}
        onPress={() => void take()}
      />
      {trouble ? <Notice tone="ochre">{trouble}</Notice> : null}
      {found.length > 0 ? (
        <Notice tone="plain" title={LABEL_WORDS.theLabelBearsSeveralMacs}>
          {LABEL_WORDS.aDeviceWithSeveralPortsHas}
        </Notice>
      ) : null}
      {found.map((mac) => (
        <Button
          key={mac}
          type="outline"
          title={mac}
          onPress={() => {
            onChange(mac);
            setFound([]);
          }}
        />
      ))}
    </View>
  );
}

function troubleOf(texts: readonly string[] | undefined): string {
  if (texts === undefined) return LABEL_WORDS.thisIsNoPictureThatCan;
  if (texts.length === 0) return LABEL_WORDS.noBarcodeWasFoundInThe;
  return LABEL_WORDS.noMacIsInTheCodes({ value: texts.map((one) => one.slice(0, 40)).join(', ') });
}
