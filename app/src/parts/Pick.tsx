import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { TOUCH, useColours } from '../theme';
import { Field } from './Field';
import { Words } from './Words';

export interface PickOption<T> {
  readonly value: T;
  readonly title: string;
  readonly detail?: string;
}

interface Props<T> {
  readonly label: string;
  readonly options: readonly PickOption<T>[];
  readonly value: T;
  readonly onChange: (value: T) => void;
}

/** From so many on, a part of the name is typed. */
const MANY = 9;
const MOST = 40;

/** One of many: shows what is chosen, opens to choose another. */
export function Pick<T>({ label, options, value, onChange }: Props<T>) {
  const colours = useColours();
  const [isOpen, setOpen] = useState(false);
  const [wanted, setWanted] = useState('');
  const chosen = options.find((one) => one.value === value);
  const words = wanted.trim().toLowerCase();
  const found = options.filter((one) =>
    `${one.title} ${one.detail ?? ''}`.toLowerCase().includes(words),
  );
  const take = (next: T) => {
    setOpen(false);
    setWanted('');
    onChange(next);
  };
  return (
    <View style={{ gap: 4 }}>
      <Words size="second" tone="second">
        {label}
      </Words>
      <Pressable
        role="button"
        aria-expanded={isOpen}
        accessibilityLabel={`${label}: ${chosen?.title ?? 'nothing chosen'}`}
        onPress={() => setOpen(!isOpen)}
        style={{
          minHeight: TOUCH,
          justifyContent: 'center',
          paddingHorizontal: 12,
          borderWidth: 1.5,
          borderColor: isOpen ? colours.plum : colours.second,
          borderRadius: 8,
          backgroundColor: colours.surface,
        }}
      >
        <Words lines={1}>{chosen?.title ?? '–'}</Words>
      </Pressable>
      {isOpen ? (
        <View
          role="list"
          aria-label={label}
          style={{ borderWidth: 1, borderColor: colours.line, borderRadius: 8, padding: 8, gap: 2 }}
        >
          {options.length >= MANY ? (
            <Field label="A part of its name" value={wanted} onChange={setWanted} autoFocus />
          ) : null}
          {found.slice(0, MOST).map((one) => (
            <Pressable
              key={one.title}
              role="option"
              aria-selected={one.value === value}
              onPress={() => take(one.value)}
              style={{ minHeight: TOUCH, justifyContent: 'center', paddingHorizontal: 8 }}
            >
              <Words size={one.value === value ? 'strong' : 'body'}>{one.title}</Words>
              {one.detail ? (
                <Words size="caption" tone="second">
                  {one.detail}
                </Words>
              ) : null}
            </Pressable>
          ))}
          {found.length > MOST ? (
            <Words size="caption" tone="second">
              and {found.length - MOST} more
            </Words>
          ) : null}
        </View>
      ) : null}
    </View>
  );
}
