/** A bad call or bad input: the sentence says what is wrong and where. The command ends with exit code 2. */
export class Failure extends Error {}
