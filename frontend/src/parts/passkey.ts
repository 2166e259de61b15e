/** Passkeys, as a browser hands them between this page and a device (WebAuthn, level 3: JSON both ways). */

type Options = Record<string, unknown>

/** Whether this browser, at this address, can have passkeys: none belongs to an address of digits. */
export const passkeysWork = (): boolean =>
  window.isSecureContext &&
  typeof PublicKeyCredential === 'function' &&
  'parseCreationOptionsFromJSON' in PublicKeyCredential &&
  !/^[\d.]+$|^\[/.test(location.hostname)

/** Have a device make a passkey; null where its owner does not want to, or it has one already. */
export const makePasskey = (options: Options): Promise<Options | null> =>
  said(() =>
    navigator.credentials.create({
      publicKey: PublicKeyCredential.parseCreationOptionsFromJSON(
        options as unknown as PublicKeyCredentialCreationOptionsJSON,
      ),
    }),
  )

/** Have a device answer by a passkey; null where its owner does not want to. */
export const askPasskey = (options: Options): Promise<Options | null> =>
  said(() =>
    navigator.credentials.get({
      publicKey: PublicKeyCredential.parseRequestOptionsFromJSON(
        options as unknown as PublicKeyCredentialRequestOptionsJSON,
      ),
    }),
  )

async function said(ask: () => Promise<Credential | null>): Promise<Options | null> {
  try {
    return ((await ask()) as PublicKeyCredential | null)?.toJSON() as Options | null
  } catch {
    return null
  }
}
