import { useTranslation } from 'react-i18next';
import { Field } from '@/ui/Field';

export interface NewAccount {
    given: string;
    family: string;
    password: string;
}

interface Props {
    value: NewAccount;
    onChange: (value: NewAccount) => void;
    error: { field: string; text: string } | null;
    names?: boolean;
    password?: { label: string; hint: string };
}

/** What anyone who makes an account is asked: two names and a password, on one step or on two. */
export function NewAccountFields({ value, onChange, error, names = true, password }: Props) {
    const { t } = useTranslation();
    const of = (field: string) => (error?.field === field ? error.text : undefined);
    return (
        <>
            {names && (
                <>
                    <Field
                        large
                        label={t('First name')}
                        required
                        maxLength={60}
                        autoComplete="given-name"
                        value={value.given}
                        onChange={(event) => onChange({ ...value, given: event.target.value })}
                        error={of('given_name')}
                    />
                    <Field
                        large
                        label={t('Last name')}
                        required
                        maxLength={60}
                        autoComplete="family-name"
                        value={value.family}
                        onChange={(event) => onChange({ ...value, family: event.target.value })}
                        error={of('family_name')}
                    />
                </>
            )}
            {password && (
                <Field
                    large
                    label={password.label}
                    type="password"
                    required
                    autoComplete="new-password"
                    hint={password.hint}
                    value={value.password}
                    onChange={(event) => onChange({ ...value, password: event.target.value })}
                    error={of('password')}
                />
            )}
        </>
    );
}
