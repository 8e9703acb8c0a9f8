import { ApiError, type Schemas } from './client';

type Question = Schemas['PasskeyQuestion'];

/** How long a browser waits for somebody to touch the device, in milliseconds; the server waits a little longer. */
export const PATIENCE = 240_000;

/** Whether this browser makes and shows passkeys at this address: with https, or on the machine itself, by a name. */
export function canPasskeys(): boolean {
    return window.isSecureContext && 'PublicKeyCredential' in window && !/^[\d.]+$|^\[/.test(window.location.hostname);
}

export function bytes(text: string): Uint8Array<ArrayBuffer> {
    return Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (c) => c.charCodeAt(0));
}

export function text(buffer: ArrayBuffer): string {
    return btoa(Array.from(new Uint8Array(buffer), (b) => String.fromCharCode(b)).join(''))
        .replaceAll('+', '-')
        .replaceAll('/', '_')
        .replaceAll('=', '');
}

export const known = (ids: string[]): PublicKeyCredentialDescriptor[] =>
    ids.map((id) => ({ type: 'public-key', id: bytes(id) }));

/** Asks the browser, which asks whoever is there; why it gives nothing is said as a sentence. */
export async function asked<T extends AuthenticatorResponse>(
    ask: () => Promise<Credential | null>,
    sentences: Record<string, string>,
): Promise<{ id: string; response: T }> {
    let why = '';
    const answer = await ask().catch((error: unknown) => {
        why = error instanceof DOMException ? error.name : '';
        return null;
    });
    if (answer instanceof PublicKeyCredential) return { id: text(answer.rawId), response: answer.response as T };
    throw new ApiError(400, '', sentences[why] ?? 'The browser gave no passkey. Try again, or sign in another way.');
}

/** Has the browser show one. */
export async function showPasskey(
    question: Question,
): Promise<{ credential: string; client: string; data: string; signature: string }> {
    const { id, response } = await asked<AuthenticatorAssertionResponse>(
        () =>
            navigator.credentials.get({
                publicKey: {
                    challenge: bytes(question.question),
                    rpId: question.party,
                    allowCredentials: known(question.credentials),
                    userVerification: 'required',
                    timeout: PATIENCE,
                },
            }),
        {
            NotAllowedError: 'No passkey was shown: it was called off, took too long, or there is none on this device.',
        },
    );
    return {
        credential: id,
        client: text(response.clientDataJSON),
        data: text(response.authenticatorData),
        signature: text(response.signature),
    };
}
