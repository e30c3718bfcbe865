import { CONNECTION_WORDS } from '@ipsonomo/language/screens/connection';

/** What a size is counted in, as it stands behind it. */
const UNITS: Readonly<Record<string, string>> = {
  '8': CONNECTION_WORDS.inBytes,
  '16': CONNECTION_WORDS.inWords,
  '32': CONNECTION_WORDS.inDoubleWords,
};

const LABELS: Readonly<Record<string, string>> = {
  unitBits: CONNECTION_WORDS.sizesAreCountedIn,
  viewpoint: CONNECTION_WORDS.inputsAreThoseOf,
  headerBytes: CONNECTION_WORDS.ofItHeader,
  inInstance: CONNECTION_WORDS.instanceOfInputs,
  outInstance: CONNECTION_WORDS.instanceOfOutputs,
  configInstance: CONNECTION_WORDS.instanceOfConfiguration,
  configBytes: CONNECTION_WORDS.configuration,
  intervalMillis: CONNECTION_WORDS.interval,
  revision: CONNECTION_WORDS.revision,
  register: CONNECTION_WORDS.firstRegister,
  counting: CONNECTION_WORDS.registersAreCounted,
};

const CHOICES: Readonly<Record<string, string>> = {
  '8': CONNECTION_WORDS.bytes,
  '16': CONNECTION_WORDS.words,
  '32': CONNECTION_WORDS.doubleWords,
  controller: CONNECTION_WORDS.theController,
  device: CONNECTION_WORDS.theDevice,
  'from-0': CONNECTION_WORDS.from0,
  'from-1': CONNECTION_WORDS.from1,
  'area-digit': CONNECTION_WORDS.withAnAreaDigit,
};

/** What a field of an end is, with the unit of its value. */
export function endLabel(field: string, unitBits: string): string {
  const unit = UNITS[unitBits] ?? CONNECTION_WORDS.inBytes;
  if (field === 'inSize') return CONNECTION_WORDS.inputs({ unit });
  if (field === 'outSize') return CONNECTION_WORDS.outputs({ unit });
  return LABELS[field] ?? field;
}

export const endChoices = (options: readonly string[]) =>
  options.map((value) => ({ value, title: CHOICES[value] ?? value }));
