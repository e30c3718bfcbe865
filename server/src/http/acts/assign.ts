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
  const { reader, changer, field, openPage } = services;
  return {
    readEvidence: ({ params }) => reader.evidenceOf(...idsOf(params)),
    bind: ({ params, body, actor }) => changer.bind(...idsOf(params), body, actor),
    unbind: ({ params, actor }) => changer.unbind(...idsOf(params), actor),
    sayKept: ({ params, actor }) => changer.sayKept(...idsOf(params), actor),
    sayGiven: ({ params, actor }) => changer.sayGiven(...idsOf(params), actor),
    saySetBack: ({ params, body, actor }) =>
      changer.saySetBack(...idsOf(params), body.reason, actor),
    sayOneDevice: async ({ params, body, actor }) => {
      await changer.sayOneDevice(...idsOf(params), body.reason, actor);
      await field.oneDevice(...idsOf(params));
    },
    readOff: ({ params, body, actor }) => changer.readOff(...idsOf(params), body, actor),
    follow: ({ params, actor }) => field.follow(...idsOf(params), actor),
    pin: ({ params, body, actor }) => field.pin(...idsOf(params), actor, body.evenSo),
    watchPower: ({ params, body, actor }) => field.watchPower(...idsOf(params), actor, body.evenSo),
    walk: ({ params, body, actor }) => field.walk(...idsOf(params), body.subnetId, actor),
    readRegister: ({ params, body, actor }) => field.readRegister(...idsOf(params), body, actor),
    askPath: ({ params, body, actor }) => field.askPath(...idsOf(params), body.from, actor),
    openPage: async ({ params, actor }) => {
      await field.openPage(...idsOf(params), actor);
      return openPage(actor.browser);
    },
    closePage: async ({ params }) => {
      field.needsJob(params.job);
      await field.closePage();
    },
    drill: ({ params, body, actor }) => field.drill(params.job, body.step, actor),
    sweep: ({ params, actor }) => field.sweep(params.job, actor),
    searchStations: ({ params, actor }) => field.search(params.job, actor),
    flash: ({ params, actor }) => field.flash(params.job, must(parseMac(params.mac)), actor),
    giveStation: ({ params, body, actor }) =>
      field.giveStation(...idsOf(params), body.give, actor, body.evenSo),
    resetStation: ({ params, body, actor }) =>
      field.resetStation(...idsOf(params), body.reason, actor, body.evenSo),
    check: ({ params, body, actor }) => field.check(params.job, body.interfaceIds, actor),
  };
};
