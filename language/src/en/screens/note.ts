import { messages } from '../../message';

export const NOTE_WORDS = messages({
  addOne: 'Add a note or a photo',
  whatIsToBeNoted: 'What is to be noted of it',
  takeAPhoto: 'Take a photo',
  anotherPhoto: 'Another photo',
  keep: 'Keep it',
  leaveIt: 'Leave it',
  noPicture: 'This browser cannot read that picture. Choose a JPEG or PNG.',
  photoOf: 'Photo: {text}',
  photo: 'Photo of the device',
});
