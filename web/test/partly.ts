/** A thing of which a test needs a part: whoever asks for more fails. */
export const partly = <T>(part: object): T => part as T;
