import { deviceShape, type Device, type JsonObject } from '@ipsonomo/core/plan';

/** What is typed as a device, as far as its fields can be read; undefined where one cannot. */
export const deviceOfTyped = (typed: JsonObject): Device | undefined => {
  const fields = deviceShape.read(typed, '', []);
  return fields && { ...fields, interfaces: [] };
};
