import { Button } from '@rneui/themed';
import { useState } from 'react';
import { Image, View } from 'react-native';
import { NOTE_WORDS } from '@ipsonomo/language/screens/note';
import { acts, chooseFile, photoOf, photoUrl, useAct } from '../../../data';
import { Card, LongField, Notice, Refusals, useDraft } from '../../../parts';
import { issuesOf } from '../../words';

interface Props {
  readonly job: string;
  /** Of the interface. */
  readonly id: string;
}

/** What a person has to say of a device, or to show: kept as evidence, also where there is no network. */
export function NoteCard({ job, id }: Props) {
  const [text, setText, forget] = useDraft(`note of ${id}`);
  const [photo, setPhoto] = useState<string>();
  const [isOpen, setOpen] = useState(text !== '');
  const [isUnread, setUnread] = useState(false);
  const note = useAct(acts.note, { job, interface: id });
  const leave = () => {
    setText('');
    setPhoto(undefined);
    setOpen(false);
  };
  const take = async () => {
    const file = await chooseFile('image/*', true);
    if (!file) return;
    const read = await photoOf(file).catch(() => undefined);
    setUnread(read === undefined);
    if (read !== undefined) setPhoto(read);
  };
  const keep = () =>
    note.mutate(
      { text, ...(photo === undefined ? {} : { photo }) },
      { onSuccess: () => (forget(), leave()) },
    );
  if (!isOpen)
    return <Button type="outline" title={NOTE_WORDS.addOne} onPress={() => setOpen(true)} />;
  return (
    <Card>
      <LongField label={NOTE_WORDS.whatIsToBeNoted} value={text} onChange={setText} />
      {photo === undefined ? null : (
        <Image
          source={{ uri: photoUrl(photo) }}
          accessibilityLabel={NOTE_WORDS.photo}
          resizeMode="contain"
          style={{ width: '100%', height: 220 }}
        />
      )}
      <Button
        type="outline"
        title={photo === undefined ? NOTE_WORDS.takeAPhoto : NOTE_WORDS.anotherPhoto}
        onPress={() => void take()}
      />
      {isUnread ? <Notice tone="brick" title={NOTE_WORDS.noPicture} /> : null}
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Button type="outline" title={NOTE_WORDS.leaveIt} onPress={leave} />
        </View>
        <View style={{ flex: 1 }}>
          <Button
            title={NOTE_WORDS.keep}
            disabled={text.trim() === '' && photo === undefined}
            loading={note.isPending}
            onPress={keep}
          />
        </View>
      </View>
      <Refusals issues={issuesOf(note.error)} />
    </Card>
  );
}
