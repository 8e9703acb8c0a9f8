import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { problem, type Problem } from './problem';

interface Props {
    hint?: string;
    /** Whether the password of now is asked for first. */
    change?: boolean;
    onSet: (password: string, current: string) => Promise<unknown>;
}

/** Choosing a password; what the server says against it stands beside the field it means. */
export function SetPassword({ hint, change = false, onSet }: Props) {
    const { t } = useTranslation();
    const [current, setCurrent] = useState('');
    const [password, setPassword] = useState('');
    const [error, setError] = useState<Problem | null>(null);
    const set = async () => {
        setError(null);
        try {
            await onSet(password, current);
            setCurrent('');
            setPassword('');
        } catch (e) {
            setError(problem(e, t, ['current']));
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
            {change && (
                <Field
                    large
                    label={t('Your password now')}
                    type="password"
                    required
                    autoComplete="current-password"
                    value={current}
                    onChange={(event) => setCurrent(event.target.value)}
                    error={error?.field === 'current' ? error.text : undefined}
                />
            )}
            <Field
                large
                label={t('New password')}
                type="password"
                required
                autoFocus={!change}
                autoComplete="new-password"
                value={password}
                onChange={(event) => setPassword(event.target.value)}
                error={error && error.field !== 'current' ? error.text : undefined}
                hint={hint}
            />
            <Button large kind={change ? 'plain' : 'primary'} type="submit">
                {t('Set the password')}
            </Button>
        </form>
    );
}
