import { useQuery } from '@tanstack/react-query';
import { api, data, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { Field } from '@/ui/Field';
import { type Keep, PartForm, type Settings } from './PartForm';

/** How sections are called, with what that gives as one types. */
export function NamingPart({
    settings,
    school,
    keep,
    onStale,
}: {
    settings: Settings;
    school: School;
    keep: Keep;
    onStale: () => void;
}) {
    return (
        <PartForm
            title="Names of sections"
            about="For making many at once. Places: {subject} {grade} {group} {period} {year}."
            button="Save the pattern"
            kept={{ naming_pattern: settings.namingPattern }}
            keep={keep}
            onStale={onStale}
        >
            {(form) => <Pattern school={school} {...form.choice('naming_pattern')} />}
        </PartForm>
    );
}

function Pattern({ school, value, onChange }: { school: School; value: string; onChange: (value: string) => void }) {
    const typed = value.trim() !== '';
    const { data: example, error } = useQuery({
        queryKey: ['names', school.id, value],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/settings/names', {
                    params: { path: { school: school.id }, query: { pattern: value } },
                }),
            ),
        enabled: typed,
        staleTime: Infinity,
    });
    return (
        <>
            <Field
                label="Pattern"
                mono
                required
                maxLength={60}
                value={value}
                onChange={(event) => onChange(event.target.value)}
                error={error && typed ? sentence(error) : undefined}
            />
            <p aria-live="polite" className="text-sm">
                {example && !error && (
                    <>
                        Gives <b>{example.names.join(' and ')}</b>.
                    </>
                )}
            </p>
        </>
    );
}
