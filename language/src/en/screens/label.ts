import { messages } from '../../message';

export const LABEL_WORDS = messages({
  readItFromAPicture: 'Read it from a picture',
  aDeviceWithSeveralPortsHas:
    'A device with several ports has one for each, often one after the other. Choose the one of the port you use.',
  theLabelBearsSeveralMacs: 'The label bears several MACs',
  thisIsNoPictureThatCan: 'This is no picture that can be read. Take one as JPEG or PNG.',
  noBarcodeWasFoundInThe:
    'No barcode was found in the picture. Go nearer, hold it still, or type the MAC.',
  noMacIsInTheCodes: 'No MAC is in the codes of this picture; they say: {value}.',
});
