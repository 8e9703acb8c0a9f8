import type { ComponentProps } from 'react';
import { useTranslation } from 'react-i18next';
import { Field } from '@/ui/Field';

type Input = Partial<ComponentProps<typeof Field>>;

/** The two names of somebody who makes an account. */
export function NameFields({ field }: { field: (name: 'given_name' | 'family_name') => Input }) {
    const { t } = useTranslation();
    return (
        <>
            <Field
                large
                label={t('First name')}
                required
                maxLength={60}
                autoComplete="given-name"
                {...field('given_name')}
            />
            <Field
                large
                label={t('Last name')}
                required
                maxLength={60}
                autoComplete="family-name"
                {...field('family_name')}
            />
        </>
    );
}

/** The password they choose. */
export function NewPassword({ label, hint, ...input }: { label: string; hint: string } & Input) {
    return <Field large label={label} type="password" required autoComplete="new-password" hint={hint} {...input} />;
}
