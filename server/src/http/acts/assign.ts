import type { assignActs } from '@ipsonomo/contract';
import { parseMac } from '@ipsonomo/core/net';
import { must } from '../../store/refusal';
import type { Handlers } from '../serve';
import type { Services } from '../services';

interface At {
  readonly job: string;
  readonly interface: string;
}

const idsOf = (params: At) => [params.job, params.interface] as const;

export const assignHandlers = (services: Services): Handlers<typeof assignActs> => {
  const { notes, reader, changer, wires, openPage, takenCalls } = services;
  const wireOf = ({ job }: Pick<At, 'job'>) => wires.at(job);
  return {
    readEvidence: ({ params }) => reader.evidenceOf(...idsOf(params)),
    listTakenCalls: ({ params, actor }) => takenCalls.all(params.job, actor),
    takeCall: ({ params, body, actor }) =>
      takenCalls.take(...idsOf(params), body.word ?? '', actor),
    leaveCall: ({ params, actor }) => takenCalls.leave(...idsOf(params), actor),
    bind: ({ params, body, actor }) => changer.bind(...idsOf(params), body, actor),
    bindAndAnswer: async ({ params, body, actor }) => {
      const { minutes, ...binding } = body;
      await changer.bind(...idsOf(params), binding, actor);
      await wireOf(params).arm(minutes, actor);
      return wires.view(params.job);
    },
    unbind: ({ params, actor }) => changer.unbind(...idsOf(params), actor),
    sayKept: ({ params, actor }) => changer.sayKept(...idsOf(params), actor),
    sayGiven: ({ params, actor }) => changer.sayGiven(...idsOf(params), actor),
    saySetBack: ({ params, body, actor }) =>
      changer.saySetBack(...idsOf(params), body.reason, actor),
    sayOneDevice: async ({ params, body, actor }) => {
      await changer.sayOneDevice(...idsOf(params), body.reason, actor);
      await wireOf(params).oneDevice(params.interface);
    },
    sayWritten: ({ params, body, actor }) => changer.sayWritten(...idsOf(params), body, actor),
    note: ({ params, body, actor }) => notes.add(...idsOf(params), body, actor),
    fetchPhoto: async ({ params, response }) => {
      const { bytes, type } = await notes.photo(params.job, params.photo);
      // It never changes: its name is the digest of it.
      response.set('Cache-Control', 'private, max-age=31536000, immutable').type(type);
      response.set('X-Content-Type-Options', 'nosniff');
      return { name: `${params.photo.slice(0, 12)}.${type.slice('image/'.length)}`, bytes };
    },
    readOff: ({ params, body, actor }) => changer.readOff(...idsOf(params), body, actor),
    follow: ({ params, actor }) => wireOf(params).follow(params.interface, actor),
    pin: ({ params, body, actor }) => wireOf(params).pin(params.interface, actor, body.evenSo),
    watchPower: ({ params, body, actor }) =>
      wireOf(params).watchPower(params.interface, actor, body.evenSo),
    walk: ({ params, body, actor }) => wireOf(params).walk(params.interface, body.subnetId, actor),
    readRegister: ({ params, body, actor }) =>
      wireOf(params).readRegister(params.interface, body, actor),
    askPath: ({ params, body, actor }) =>
      wireOf(params).askPath(params.interface, body.from, actor),
    openPage: async ({ params, actor }) => {
      await wireOf(params).openPage(params.interface, actor);
      return openPage(params.job, actor.browser);
    },
    closePage: ({ params }) => wireOf(params).closePage(),
    drill: ({ params, body, actor }) => wireOf(params).drill(body.step, actor),
    sweep: ({ params, actor }) => wireOf(params).sweep(actor),
    searchStations: ({ params, actor }) => wireOf(params).search(actor),
    flash: ({ params, actor }) => wireOf(params).flash(must(parseMac(params.mac)), actor),
    giveStation: ({ params, body, actor }) =>
      wireOf(params).giveStation(params.interface, body.give, actor, body.evenSo),
    resetStation: ({ params, body, actor }) =>
      wireOf(params).resetStation(params.interface, body.reason, actor, body.evenSo),
    check: ({ params, body, actor }) => wireOf(params).check(body.interfaceIds, actor),
  };
};
