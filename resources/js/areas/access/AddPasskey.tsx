import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { fieldOf } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { makePasskey } from '@/api/makePasskey';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { PasswordNow } from './PasswordNow';
import { useProblem } from './problem';

interface Props {
    kind?: 'primary' | 'plain';
    onAdded: (page: Schemas['PasskeyPage']) => void;
}

/** Making a passkey on this device: a name for it, then the browser asks. */
export function AddPasskey({ kind = 'plain', onAdded }: Props) {
    const { t } = useTranslation();
    const words = useProblem();
    const [asks, setAsks] = useState(false);
    const form = useSentForm({
        start: { name: '', current: '' },
        send: async ({ name, current }) => {
            const question = await data(api.POST('/api/passkeys/ask', { body: current ? { current } : {} }));
            return data(api.POST('/api/passkeys', { body: { ...(await makePasskey(question)), name } }));
        },
        stale: [],
        forget: ['current'],
        words: (error) => {
            // Signed in a while ago: whoever adds one shows once more who they are, which is no mistake of theirs.
            const first = !asks && fieldOf(error) === 'current';
            if (first) setAsks(true);
            return first ? '' : words(error);
        },
        then: (page) => {
            form.reset({ name: '', current: '' });
            onAdded(page);
        },
    });
    return (
        <form className="flex flex-col gap-4" onSubmit={form.submit}>
            <Field
                large
                label={t('A name for it')}
                maxLength={60}
                hint={t('Such as “School laptop”, so that you know which one to remove if it is lost.')}
                {...form.field('name')}
            />
            {asks && <PasswordNow {...form.field('current')} />}
            {form.error && (
                <p role="alert" className="text-madder">
                    {form.error}
                </p>
            )}
            <Button large kind={kind} type="submit" disabled={form.busy}>
                {form.busy ? t('Your browser asks you now…') : t('Add a passkey')}
            </Button>
        </form>
    );
}
