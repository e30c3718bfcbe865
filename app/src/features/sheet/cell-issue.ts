import { parseHostName } from '@ipsonomo/core/names';
import { parseIpv4, type Issue } from '@ipsonomo/core/net';
import { checkAddress, findSubnet, type Plan } from '@ipsonomo/core/plan';
import type { SheetColumn, SheetRow } from '@ipsonomo/core/sheet';

/** What would break with this text in the cell; undefined where nothing would. */
export function cellIssue(
  plan: Plan,
  column: SheetColumn,
  row: SheetRow | undefined,
  text: string,
): Issue | undefined {
  const read = column.read(text, plan, row);
  if (!read.ok) return text.trim() === '' ? undefined : read.error;
  if (column.id === 'name') return nameIssue(plan, row, text.trim());
  const address = read.value.at?.['address'];
  const subnet = row?.at && findSubnet(plan, row.at.subnetId);
  if (column.id !== 'address' || typeof address !== 'string' || !subnet) return undefined;
  const value = parseIpv4(address);
  return value.ok ? checkAddress(plan, subnet, value.value, row.at?.id)[0] : undefined;
}

function nameIssue(plan: Plan, row: SheetRow | undefined, text: string): Issue | undefined {
  const read = parseHostName(text);
  if (!read.ok) return read.error;
  const holder = plan.devices.find((one) => one.name === text && one.id !== row?.device.id);
  return holder && { code: 'name.taken', where: text, facts: { holder: holder.title } };
}
