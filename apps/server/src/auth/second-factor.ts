import { generateSecret, generateURI, verifySync } from 'otplib';

/** A phone's clock may be so far out. */
const TOLERANCE_SECONDS = 30;

export interface NewFactor {
  /** Base32, for typing. */
  readonly secret: string;
  /** `otpauth:` address, for a QR code. */
  readonly address: string;
}

/** A secret for an authenticator app. Nothing is kept of it until a code of it has been shown. */
export function newFactor(email: string): NewFactor {
  const secret = generateSecret();
  return { secret, address: generateURI({ issuer: 'Water Clock', label: email, secret }) };
}

/**
 * The step of time that a code stands for; null where it is wrong, or its step was used before.
 *
 * @param after the step of the last code that was taken
 */
export function stepOf(secret: string, code: string, after: number | null): number | null {
  const token = code.replace(/\s/g, '');
  if (!/^\d{6}$/.test(token)) return null;
  const found = verifySync({ secret, token, epochTolerance: TOLERANCE_SECONDS });
  if (!found.valid || !('timeStep' in found)) return null;
  return after === null || found.timeStep > after ? found.timeStep : null;
}
