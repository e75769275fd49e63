/** How the words begin that stand for a picture that has to be uploaded. They are words, so that they are seen whatever the rules allow. */
export const STAND_IN = '[Picture to upload';
