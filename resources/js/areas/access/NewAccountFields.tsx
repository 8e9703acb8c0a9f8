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
    passwordLabel: string;
    passwordHint: string;
}

/** What anyone who makes an account is asked: two names and a password. */
export function NewAccountFields({ value, onChange, error, passwordLabel, passwordHint }: Props) {
    const of = (field: string) => (error?.field === field ? error.text : undefined);
    return (
        <>
            <Field
                large
                label="First name"
                required
                maxLength={60}
                autoComplete="given-name"
                value={value.given}
                onChange={(event) => onChange({ ...value, given: event.target.value })}
                error={of('given_name')}
            />
            <Field
                large
                label="Last name"
                required
                maxLength={60}
                autoComplete="family-name"
                value={value.family}
                onChange={(event) => onChange({ ...value, family: event.target.value })}
                error={of('family_name')}
            />
            <Field
                large
                label={passwordLabel}
                type="password"
                required
                autoComplete="new-password"
                hint={passwordHint}
                value={value.password}
                onChange={(event) => onChange({ ...value, password: event.target.value })}
                error={of('password')}
            />
        </>
    );
}
