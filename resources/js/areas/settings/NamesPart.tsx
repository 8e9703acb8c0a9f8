import { Choice } from '@/ui/Choice';
import { type Keep, PartForm, type Settings } from './PartForm';

/** How much of a student's name others read, and which name a user name is made from. */
export function NamesPart({ settings, keep, onStale }: { settings: Settings; keep: Keep; onStale: () => void }) {
    return (
        <PartForm
            title="Names of students"
            about="Walls and the lists of a room never show a whole name. What is on record stays whole whatever is shown."
            button="Save the rules for names"
            kept={{ name_shown: settings.nameShown, user_names_from: settings.userNamesFrom }}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <>
                    <Choice
                        stacked
                        label="On cards"
                        {...form.choice('name_shown')}
                        options={[
                            { value: 'full', label: 'given and family name' },
                            { value: 'initial', label: 'given name and the first letter of the family name' },
                        ]}
                    />
                    <Choice
                        stacked
                        label="New user names are made from"
                        {...form.choice('user_names_from')}
                        options={[
                            { value: 'legal', label: 'the name on record' },
                            { value: 'preferred', label: 'the name somebody goes by, where there is one' },
                        ]}
                    />
                </>
            )}
        </PartForm>
    );
}
