import { generateSecret, generateURI, verifySync } from 'otplib';

/** Tolerated error of a phone's clock. */
const TOLERANCE_SECONDS = 30;

export interface NewFactor {
  /** Base32, for typing. */
  readonly secret: string;
  /** `otpauth:` URL for the QR code. */
  readonly address: string;
}

/** A secret for an authenticator app. It is not saved until a code proves that the app has it. */
export function newFactor(email: string): NewFactor {
  const secret = generateSecret();
  return { secret, address: generateURI({ issuer: 'Water Clock', label: email, secret }) };
}

/**
 * Time step of a code; null if the code is wrong or its step was already used.
 *
 * @param after time step of the last accepted code
 */
export function stepOf(secret: string, code: string, after: number | null): number | null {
  const token = code.replace(/\s/g, '');
  if (!/^\d{6}$/.test(token)) return null;
  const found = verifySync({ secret, token, epochTolerance: TOLERANCE_SECONDS });
  if (!found.valid || !('timeStep' in found)) return null;
  return after === null || found.timeStep > after ? found.timeStep : null;
}
