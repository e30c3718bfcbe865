import { messages } from '../../message';

export const SWITCHES_WORDS = messages({
  theSwitchesCannotSayWhatIs: 'The switches cannot say what is planned',
  enoughOfReading: 'Enough of reading',
  theyStandOtherwiseReadThem: 'They stand otherwise: read them',
  setTheDrawingAsYouSee: 'Set the drawing as you see the device.',
});
