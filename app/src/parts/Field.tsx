import { Input } from '@rneui/themed';
import { useId } from 'react';
import type { Issue } from '@ipsonomo/core/net';
import { sentenceOf } from '@ipsonomo/language';
import { FIGURES, TYPE } from '../theme';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly issue?: Issue | undefined;
  readonly placeholder?: string;
  /** Addresses and MACs: figures of equal width, no corrections by the keyboard. */
  readonly figures?: boolean;
  readonly numeric?: boolean;
  readonly autoFocus?: boolean;
  /** A password: not shown, and offered to be kept by whoever keeps passwords. */
  readonly secret?: 'current' | 'new';
  /** Enter, as a scanner sends it after what it read. */
  readonly onEnter?: (() => void) | undefined;
}

/** One value to type, with what is wrong with it told while typing. */
export function Field(props: Props) {
  const { label, value, onChange, issue, placeholder, figures, numeric, secret } = props;
  const { autoFocus, onEnter } = props;
  const told = useId();
  return (
    <Input
      label={label}
      accessibilityLabel={label}
      value={value}
      onChangeText={onChange}
      {...(placeholder ? { placeholder } : {})}
      errorMessage={issue ? sentenceOf(issue) : ''}
      errorProps={{ nativeID: told, 'aria-live': 'polite' }}
      aria-describedby={issue ? told : undefined}
      {...({ 'aria-invalid': issue !== undefined } as object)}
      autoCapitalize="none"
      autoCorrect={false}
      autoComplete={secret ? `${secret}-password` : 'off'}
      {...(secret ? { secureTextEntry: true } : {})}
      {...(onEnter ? { onSubmitEditing: onEnter, blurOnSubmit: false } : {})}
      {...(autoFocus ? { autoFocus: true } : {})}
      spellCheck={!figures}
      inputMode={numeric ? 'numeric' : 'text'}
      {...(figures ? { inputStyle: { ...TYPE.body, fontFamily: FIGURES } } : {})}
    />
  );
}
