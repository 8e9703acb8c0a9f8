import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { problem } from './problem';

/** Choosing a password: one field, one button; what the server says against it stands beside it. */
export function SetPassword({ hint, onSet }: { hint: string; onSet: (password: string) => Promise<unknown> }) {
    const { t } = useTranslation();
    const [password, setPassword] = useState('');
    const [error, setError] = useState('');
    const set = async () => {
        setError('');
        try {
            await onSet(password);
        } catch (e) {
            setError(problem(e, t).text);
        }
    };
    return (
        <form
            className="flex flex-col gap-5"
            onSubmit={(event) => {
                event.preventDefault();
                void set();
            }}
        >
            <Field
                large
                label={t('New password')}
                type="password"
                required
                autoFocus
                autoComplete="new-password"
                value={password}
                onChange={(event) => setPassword(event.target.value)}
                error={error || undefined}
                hint={hint}
            />
            <Button large kind="primary" type="submit">
                {t('Set the password')}
            </Button>
        </form>
    );
}
