import type { ComponentProps } from 'react';
import { useTranslation } from 'react-i18next';
import { Field } from '@/ui/Field';

/** The own password, once more: of somebody who signed in a while ago and changes how they sign in. */
export function PasswordNow(field: Omit<ComponentProps<typeof Field>, 'label'>) {
    const { t } = useTranslation();
    return (
        <Field
            large
            label={t('Your password now')}
            type="password"
            required
            autoFocus
            autoComplete="current-password"
            hint={t('Once more: whoever sets this up decides who can sign in.')}
            {...field}
        />
    );
}
