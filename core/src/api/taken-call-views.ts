/** A device that somebody is at: they act there, and the others see it. */
export interface TakenCallView {
  readonly interface: string;
  readonly person: string;
  /** Of whoever asks. */
  readonly isOwn: boolean;
  /** Milliseconds since 1970. */
  readonly since: number;
  /** Until then, if nothing more is done at it. */
  readonly until: number;
  /** From whom it was taken over while they were at it, and their word for it. */
  readonly takenFrom: {
    readonly person: string;
    readonly isMe: boolean;
    readonly word: string;
  } | null;
}

/** What a person notes of a device. */
export interface Noted {
  readonly text: string;
  /** In base64: JPEG or PNG. */
  readonly photo?: string;
}

/** Takes a call that somebody else is at over, with a word to them. */
export interface TakingCall {
  readonly word?: string;
}
