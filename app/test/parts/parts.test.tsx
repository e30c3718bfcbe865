import { act, fireEvent } from '@testing-library/react';
import { toMac } from '@ipsonomo/core';
import { Button } from '@rneui/themed';
import { useState } from 'react';
import {
  AddressText,
  Beside,
  LabelCheck,
  LinkLine,
  ReasonForm,
  StageNotches,
  Words,
} from '../../src/parts';
import { DAY, NIGHT } from '../../src/theme';
import { interfaceView, show } from '../world';

// What the subnet fixes is light, what is this device's is heavy.
test.each([
  [24, '172.22.40.', '86'],
  [16, '172.22.', '40.86'],
  [20, '172.22.', '40.86'],
  [32, '172.22.40.', '86'],
  [0, '', '172.22.40.86'],
])('an address in a /%i', (length, light, heavy) => {
  const { getByText } = show(<AddressText address="172.22.40.86" length={length} still />);
  const weightOf = (text: string) => getComputedStyle(getByText(text)).fontWeight;
  if (light) expect(weightOf(light)).toBe('400');
  expect(weightOf(heavy)).toBe('700');
});

test('an address is copied by a tap, and says so', async () => {
  const written: string[] = [];
  const clipboard = { writeText: (text: string) => Promise.resolve(void written.push(text)) };
  Object.defineProperty(navigator, 'clipboard', { configurable: true, value: clipboard });
  const { findByText, getByRole } = show(<AddressText address="172.22.40.86" length={24} />);
  fireEvent.click(getByRole('button'));
  expect(await findByText('copied')).toBeTruthy();
  expect(written).toEqual(['172.22.40.86']);
});

test('over plain HTTP, where a browser has no clipboard, it is copied in the old way, or told', async () => {
  Reflect.deleteProperty(navigator, 'clipboard');
  const { findByText, getByRole } = show(<AddressText address="172.22.40.86" length={24} />);
  fireEvent.click(getByRole('button'));
  expect(await findByText('not copied: hold it to mark it')).toBeTruthy();
});

test('the label check stands letter under letter; nothing typed yet leaves the places open', () => {
  const heard = toMac(0x024c7a1d8003);
  const { getByLabelText, rerender } = show(<LabelCheck label={undefined} heard={heard} />);
  expect(getByLabelText('· · · · · · · · · · · ·')).toBeTruthy();
  expect(getByLabelText('0 2 4 C 7 A 1 D 8 0 0 3')).toBeTruthy();
  rerender(<></>);
});

test('a contradicted stage is told in words as well as drawn', () => {
  const { notches } = interfaceView();
  const broken = notches.map((notch) =>
    notch.stage === 'proven' ? { ...notch, state: 'broken' as const } : notch,
  );
  const { getByLabelText } = show(<StageNotches notches={broken} />);
  expect(getByLabelText('stage: planned, proven: contradicted')).toBeTruthy();
});

test('"Fall silent" is there while anything may be sent, and only then', () => {
  const silence = jest.fn();
  const line = (isSending: boolean) => (
    <LinkLine
      {...{ wire: 'Practice site', state: 'silent', trouble: false }}
      isSending={isSending}
      onPress={() => undefined}
      onFallSilent={silence}
    />
  );
  expect(show(line(false)).queryByText('Fall silent')).toBeNull();
  fireEvent.click(show(line(true)).getByText('Fall silent'));
  expect(silence).toHaveBeenCalledTimes(1);
});

/** Relative luminance and contrast: WCAG 2.1 §1.4.3. */
function contrast(a: string, b: string): number {
  const luminance = (colour: string) => {
    const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
      const part = parseInt(colour.slice(at, at + 2), 16) / 255;
      return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

test.each([
  ['day', DAY],
  ['night', NIGHT],
])('%s: words at least 4.5:1, what is heavy in an address at least 7:1', (_name, colours) => {
  const { ground, surface, ink, second, plum, onPlum } = colours;
  for (const under of [ground, surface]) {
    expect(contrast(ink, under)).toBeGreaterThanOrEqual(7);
    expect(contrast(second, under)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(plum, under)).toBeGreaterThanOrEqual(4.5);
  }
  expect(contrast(onPlum, plum)).toBeGreaterThanOrEqual(4.5);
  for (const tone of ['ochre', 'brick', 'moss'] as const) {
    expect(contrast(colours[tone], ground)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(ink, colours[`${tone}Ground`])).toBeGreaterThanOrEqual(7);
  }
});

describe('what is half typed', () => {
  const LABEL = 'How do you know?';
  const form = (about: string, onSay = (_reason: string, said: () => void) => said()) => {
    const words = { label: LABEL, title: 'Say it', leave: 'Leave it' };
    const screen = show(
      <ReasonForm {...{ about, ...words, isBusy: false, onSay, onLeave: () => undefined }} />,
    );
    const field = () => screen.getByLabelText(LABEL) as HTMLInputElement;
    const type = (value: string) => fireEvent.change(field(), { target: { value } });
    return { ...screen, field, type };
  };
  const left = (about: string) => {
    const { field, unmount } = form(about);
    const { value } = field();
    unmount();
    return value;
  };

  test('is there again where its page is drawn anew, and for nobody else', () => {
    const { type, unmount } = form('one');
    type('I stood bef');
    unmount();
    expect([left('one'), left('other')]).toEqual(['I stood bef', '']);
  });

  test.each([
    ['said', 'Say it', ''],
    ['left', 'Leave it', ''],
  ])('is forgotten once it is %s', (_how, title, after) => {
    const { type, getByText, unmount } = form('one');
    type('I stood before it');
    fireEvent.click(getByText(title));
    unmount();
    expect(left('one')).toBe(after);
  });

  test('stays where it was refused', () => {
    const { type, getByText, field, unmount } = form('one', () => undefined);
    type('I stood before it');
    fireEvent.click(getByText('Say it'));
    expect(field().value).toBe('I stood before it');
    unmount();
    expect(left('one')).toBe('I stood before it');
  });

  test('stands in the field also in a browser that keeps nothing', () => {
    const none = () => {
      throw new Error('denied');
    };
    const spies = (['getItem', 'setItem', 'removeItem'] as const).map((name) =>
      jest.spyOn(Storage.prototype, name).mockImplementation(none),
    );
    const { type, field } = form('one');
    type('typed');
    expect(field().value).toBe('typed');
    spies.forEach((spy) => spy.mockRestore());
  });
});

test('what stands beside a list stays as it is when the width changes', () => {
  const resize = (width: number) =>
    act(() => {
      Object.defineProperty(document.documentElement, 'clientWidth', {
        configurable: true,
        value: width,
      });
      window.dispatchEvent(new Event('resize'));
    });
  function Open() {
    const [isOpen, setOpen] = useState(false);
    return <Button title={isOpen ? 'open' : 'shut'} onPress={() => setOpen(true)} />;
  }
  resize(390);
  const { getByText, queryByText } = show(
    <Beside main="one" list={<Words>the list</Words>}>
      <Open />
    </Beside>,
  );
  expect(queryByText('the list')).toBeNull();
  fireEvent.click(getByText('shut'));
  resize(1280);
  expect([getByText('the list'), getByText('open')]).toHaveLength(2);
  resize(390);
  expect([queryByText('the list'), getByText('open')]).toMatchObject([null, {}]);
});
