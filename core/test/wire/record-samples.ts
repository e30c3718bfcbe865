import {
  RECORD,
  type Identification,
  type RealModule,
  type RecordAnswer,
  type RecordQuestion,
} from '../../src/wire';

export const RECORD_ASKED: RecordQuestion = {
  ...{ activity: Uint8Array.from({ length: 16 }, (_, i) => i + 1), sequence: 7, most: 1200 },
  ...{ vendor: 1022, device: 8, slot: 0, subslot: 1, index: RECORD.modules },
};

export const RECORD_TOLD: RecordAnswer = {
  ...{ activity: RECORD_ASKED.activity, sequence: 7, status: 0 },
  ...{ slot: 0, subslot: 1, index: 0x8000, data: Uint8Array.of(1, 2, 3, 250) },
};

export const REAL_MODULES: readonly RealModule[] = [
  { slot: 0, ident: 0x10, submodules: [{ subslot: 1, ident: 1 }] },
  { slot: 2, ident: 0x8000_0022, submodules: [] },
];

export const IDENTIFICATION: Identification = {
  ...{ vendor: 1022, orderNumber: 'EB-8-CH', serial: '7A710021', hardware: 3 },
  software: ['V', 3, 1, 4],
};

/** Slot 2 with one submodule, in version 1.0, which names no profile. */
export const OLD_MODULES = Uint8Array.from([
  ...[0x00, 0x13, 0x00, 0x12, 0x01, 0x00, 0x00, 0x01],
  ...[0x00, 0x02, 0x00, 0x00, 0x00, 0x22, 0x00, 0x01, 0x00, 0x01, 0x00, 0x00, 0x00, 0x05],
]);
