import { useTranslation } from 'react-i18next';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { useProblem } from './problem';

interface Props {
    hint?: string;
    /** Whether the password of now is asked for first. */
    change?: boolean;
    onSet: (password: string, current: string) => Promise<unknown>;
}

/** Choosing a password; what the server says against it stands beside the field it means. */
export function SetPassword({ hint, change = false, onSet }: Props) {
    const { t } = useTranslation();
    const form = useSentForm<{ current: string; password: string }>({
        start: { current: '', password: '' },
        send: ({ current, password }) => onSet(password, current),
        stale: [],
        home: 'password',
        words: useProblem(),
        then: (): void => form.reset({ current: '', password: '' }),
    });
    return (
        <form className="flex flex-col gap-5" onSubmit={form.submit}>
            {change && (
                <Field
                    large
                    label={t('Your password now')}
                    type="password"
                    required
                    autoComplete="current-password"
                    {...form.field('current')}
                />
            )}
            <Field
                large
                label={t('New password')}
                type="password"
                required
                autoFocus={!change}
                autoComplete="new-password"
                {...form.field('password')}
                hint={hint}
            />
            <Button large kind={change ? 'plain' : 'primary'} type="submit" disabled={form.busy}>
                {t('Set the password')}
            </Button>
        </form>
    );
}
