import type { ComponentProps } from 'react';
import { useTranslation } from 'react-i18next';
import { Field } from '@/ui/Field';

type Name = 'given_name' | 'family_name' | 'email' | 'phone';

/** Who a guardian without an account is. */
export function GuardianFields({ field }: { field: (name: Name) => Partial<ComponentProps<typeof Field>> }) {
    const { t } = useTranslation();
    return (
        <>
            <Field large label={t('First name')} required autoComplete="given-name" {...field('given_name')} />
            <Field large label={t('Last name')} autoComplete="family-name" {...field('family_name')} />
            <Field
                large
                label={t('Your mail address')}
                type="email"
                required
                dir="ltr"
                autoComplete="email"
                {...field('email')}
            />
            <Field large label={t('Phone (optional)')} type="tel" dir="ltr" autoComplete="tel" {...field('phone')} />
        </>
    );
}
