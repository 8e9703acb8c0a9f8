import { ApiError, type Schemas } from './client';
import { asked, bytes, known, PATIENCE, text } from './passkey';

/** Has the browser make a passkey. */
export async function makePasskey(
    question: Schemas['PasskeyQuestion'],
): Promise<{ client: string; data: string; key: string }> {
    const { response } = await asked<AuthenticatorAttestationResponse>(
        () =>
            navigator.credentials.create({
                publicKey: {
                    challenge: bytes(question.question),
                    rp: { id: question.party, name: 'Vantrel' },
                    user: { id: bytes(question.owner), name: question.userName, displayName: question.name },
                    pubKeyCredParams: question.algorithms.map((alg) => ({ type: 'public-key', alg })),
                    excludeCredentials: known(question.credentials),
                    authenticatorSelection: {
                        residentKey: 'required',
                        requireResidentKey: true,
                        userVerification: 'required',
                    },
                    attestation: 'none',
                    timeout: PATIENCE,
                },
            }),
        {
            InvalidStateError: 'This device has a passkey of yours already.',
            NotAllowedError: 'No passkey was made: it was called off, or took too long.',
            SecurityError: 'This browser makes no passkeys at this address.',
        },
    );
    const key = response.getPublicKey();
    if (!key)
        throw new ApiError(
            400,
            'Passkey',
            'This device makes passkeys of a kind that cannot be used here. Try another.',
        );
    return { client: text(response.clientDataJSON), data: text(response.getAuthenticatorData()), key: text(key) };
}
