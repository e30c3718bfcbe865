import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { csv } from '../../parts/csv';
import { xlsx } from '../../parts/xlsx';
import { columnsOf, headsOf, rowsOf } from './columns';

/** R-CSV: the address list, UTF-8. */
export const addressesCsv: Format = {
  id: 'addresses-csv',
  write: (material) => {
    const columns = columnsOf(material, false);
    const rows = rowsOf(material, columns).map((row) => row.map(String));
    const content = csv(headsOf(columns), rows);
    return { files: [{ name: fileName(material, 'addresses', '.csv'), content }], left: [] };
  },
};

/** R-XLSX: the same as a sheet; the number beside an address sorts it rightly. */
export const addressesXlsx: Format = {
  id: 'addresses-xlsx',
  write: async (material) => {
    const columns = columnsOf(material, true);
    const sheet = {
      name: FILE_WORDS.addresses,
      heads: headsOf(columns),
      rows: rowsOf(material, columns),
    };
    const content = await xlsx([sheet], material.at);
    return { files: [{ name: fileName(material, 'addresses', '.xlsx'), content }], left: [] };
  },
};
