import { Choice } from '@/ui/Choice';
import { type Keep, PartForm, type Settings } from './PartForm';

const HOURS = Array.from({ length: 24 }, (_, hour) => ({ value: String(hour), label: `${String(hour)}:00` }));

/** When no letter or text to many goes out by itself. */
export function QuietPart({ settings, keep, onStale }: { settings: Settings; keep: Keep; onStale: () => void }) {
    return (
        <PartForm
            title="Quiet hours"
            about="A letter or text to many that falls into them waits until they are over, by the school’s clock, unless its writer says otherwise. The same hour twice: there are none."
            button="Save quiet hours"
            kept={{ quiet_from: String(settings.quietFrom), quiet_to: String(settings.quietTo) }}
            body={(draft) => ({ quiet_from: Number(draft.quiet_from), quiet_to: Number(draft.quiet_to) })}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <div className="flex flex-wrap gap-4">
                    <Choice stacked label="From" {...form.choice('quiet_from')} options={HOURS} />
                    <Choice stacked label="Until" {...form.choice('quiet_to')} options={HOURS} />
                </div>
            )}
        </PartForm>
    );
}
