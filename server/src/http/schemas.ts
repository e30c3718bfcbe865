import Joi from 'joi';
import {
  COLUMN_IDS,
  WAYS,
  type Binding,
  type DeviceChange,
  type JsonObject,
  type ListTaking,
  type NewDevice,
  type NewSubnet,
  type ProofWish,
  type RegisterWish,
  type VigilWish,
  type StationGiving,
  type GoingOn,
  type ReadOff,
  type SetBack,
  type StationReset,
  type CabinetAction,
  type WireChoice,
} from '@ipsonomo/core';

// Shapes and sizes only. Whether an address or a name is right is core's to say, in its own words.

const text = (most: number) => Joi.string().allow('').max(most);
const uuid = Joi.string().uuid();
const thingId = Joi.string().pattern(/^[\w.:-]{1,80}$/);
const way = Joi.string().valid(...WAYS);

export const newJob = Joi.object<{ name: string }>({ name: text(120).required() });

/** Each edit is read in its shape by core, which names what is wrong with it. */
export const newEdits = Joi.object<{ edits: JsonObject[]; why: string }>({
  edits: Joi.array().items(Joi.object()).min(1).max(50_000).required(),
  why: text(300).required(),
});

const sheetIndex = Joi.number().integer().min(0).max(1000).required();

export const listSheet = Joi.object<{ sheet: number }>({ sheet: sheetIndex });

/** A key as somebody typed it. */
export const doorKey = Joi.object<{ key: string }>({ key: Joi.string().max(80).required() });

export const listTaking = Joi.object<ListTaking>({
  sheet: sheetIndex,
  columns: Joi.array()
    .items(Joi.string().valid(...COLUMN_IDS, null))
    .max(200)
    .required(),
  defaults: Joi.object({ kindId: text(80), subnetId: thingId }).required(),
});

export const revisionName = Joi.object<{ name: string }>({ name: text(120).required() });

export const newSubnet = Joi.object<NewSubnet>({
  name: text(80).required(),
  network: text(40).required(),
  gateway: text(40).allow(null).required(),
  vlan: Joi.number().integer().min(1).max(4094).allow(null).required(),
  purpose: text(200).required(),
});

const newDevice = Joi.object<NewDevice>({
  title: text(120).required(),
  name: text(253).required(),
  kindId: text(80).required(),
  way: way.required(),
  area: text(80).required(),
  cabinet: text(40).required(),
  position: text(40).required(),
  subnetId: thingId.required(),
  address: text(40).required(),
});

export const newDevices = Joi.object<{ devices: NewDevice[] }>({
  devices: Joi.array().items(newDevice).min(1).max(500).required(),
});

export const deviceChange = Joi.object<DeviceChange>({
  title: text(120),
  name: text(253),
  way,
  area: text(80),
  cabinet: text(40),
  position: text(40),
  address: text(40),
}).min(1);

export const binding = Joi.object<Binding>({
  mac: text(40).required(),
  label: text(80).required(),
  reason: text(300),
});

const evenSo = Joi.string().trim().min(1).max(300);
export const walking = Joi.object<{ subnetId: string }>({
  subnetId: Joi.string().max(80).required(),
});

const proofScope = Joi.alternatives()
  .try(
    Joi.object({ kind: Joi.valid('job').required() }),
    Joi.object({ kind: Joi.valid('subnet').required(), subnetId: thingId.required() }),
    Joi.object({ kind: Joi.valid('cabinet').required(), cabinet: text(40).required() }),
    Joi.object({ kind: Joi.valid('interface').required(), interfaceId: thingId.required() }),
  )
  .required();
const perSecond = Joi.number().integer().min(20).max(1000).required();

export const proofWish = Joi.object<ProofWish>({ scope: proofScope, perSecond });

export const proofPace = Joi.object<Pick<ProofWish, 'perSecond'>>({ perSecond });

export const vigilWish = Joi.object<VigilWish>({
  scope: proofScope,
  everySeconds: Joi.number().integer().min(1).max(600).required(),
  minutes: Joi.number().min(0.05).max(1440).required(),
});

export const registerWish = Joi.object<RegisterWish>({
  unit: Joi.number().integer().min(0).max(255).required(),
  written: text(10).required(),
  counting: Joi.valid('from-0', 'from-1', 'area-digit').required(),
});

export const pathAsking = Joi.object<{ from: string }>({ from: text(80).required() });

export const drilling = Joi.object<{ step: 'begin' | 'on' | 'end' }>({
  step: Joi.valid('begin', 'on', 'end').required(),
});

export const goingOn = Joi.object<GoingOn>({ evenSo });

export const stationGiving = Joi.object<StationGiving>({
  give: Joi.valid('name', 'temporary', 'stored').required(),
  evenSo,
});

const reason = Joi.string().trim().min(1).max(300);
export const setBack = Joi.object<SetBack>({ reason: reason.required() });

export const stationReset = Joi.object<StationReset>({
  reason: reason.required(),
  evenSo,
});

export const readOff = Joi.object<ReadOff>({
  from: Joi.valid('display', 'page').required(),
  text: text(20_000).required(),
});

export const interfaces = Joi.object<{ interfaceIds: string[] }>({
  interfaceIds: Joi.array().items(thingId).min(1).max(1000).required(),
});

export const wireChoice = Joi.object<WireChoice>({
  kind: Joi.string().valid('practice', 'live').required(),
  adapter: Joi.when('kind', {
    is: 'live',
    // IFNAMSIZ of Linux is 16 with the closing zero.
    then: Joi.string()
      .max(15)
      .pattern(/^[^/\s]+$/)
      .required(),
    otherwise: Joi.forbidden(),
  }),
  evenSo: Joi.boolean(),
});

export const noticeRead = Joi.object<{ code: string; at: number }>({
  code: Joi.string().max(40).required(),
  at: Joi.number().required(),
});

export const listening = Joi.object<{ jobId: string }>({ jobId: uuid.required() });

export const arming = Joi.object<{ minutes: number }>({
  minutes: Joi.number().min(1).max(60).required(),
});

const device = Joi.string().max(80).required();

export const cabinetAction = Joi.alternatives<CabinetAction>().try(
  Joi.object({
    kind: Joi.valid('power', 'cable').required(),
    device,
    on: Joi.boolean().required(),
  }),
  Joi.object({ kind: Joi.valid('power-all').required(), on: Joi.boolean().required() }),
  Joi.object({ kind: Joi.valid('own-step', 'set-back').required(), device }),
  Joi.object({
    kind: Joi.valid('turn').required(),
    device,
    positions: Joi.array().items(Joi.number().integer().min(0).max(35)).max(64).required(),
  }),
  Joi.object({ kind: Joi.valid('type').required(), device, address: text(40).required() }),
  Joi.object({
    kind: Joi.valid('fault').required(),
    fault: Joi.string().max(80).required(),
    on: Joi.boolean().required(),
  }),
  Joi.object({ kind: Joi.valid('socket').required(), segment: Joi.string().max(80).required() }),
  Joi.object({ kind: Joi.valid('reset').required() }),
);

export const cabinet = Joi.object<{ action: CabinetAction }>({ action: cabinetAction.required() });
