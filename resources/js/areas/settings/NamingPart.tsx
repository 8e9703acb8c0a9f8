import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { type Keep, Part, type Settings } from './SettingsPage';

/** How sections are called, with what that gives as one types. */
export function NamingPart({ settings, school, keep }: { settings: Settings; school: School; keep: Keep }) {
    const [pattern, setPattern] = useState(settings.namingPattern);
    const { data: example, error } = useQuery({
        queryKey: ['names', school.id, pattern],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/settings/names', {
                    params: { path: { school: school.id }, query: { pattern } },
                }),
            ),
        enabled: pattern.trim() !== '',
        staleTime: Infinity,
    });
    return (
        <Part title="Names of sections" about="For making many at once. Places: {subject} {grade} {group} {period} {year}.">
            <form
                className="flex flex-col gap-3"
                onSubmit={(event) => {
                    event.preventDefault();
                    void keep({ naming_pattern: pattern });
                }}
            >
                <Field
                    label="Pattern"
                    mono
                    required
                    maxLength={60}
                    value={pattern}
                    onChange={(event) => setPattern(event.target.value)}
                    error={error && pattern.trim() !== '' ? sentence(error) : undefined}
                />
                <p aria-live="polite" className="text-sm">
                    {example && !error && (
                        <>
                            Gives <b>{example.names.join(' and ')}</b>.
                        </>
                    )}
                </p>
                <div>
                    <Button type="submit" disabled={error !== null}>
                        Keep the pattern
                    </Button>
                </div>
            </form>
        </Part>
    );
}
