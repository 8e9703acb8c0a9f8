import { useState } from 'react';
import { useAct } from '@/api/act';
import type { Schemas } from '@/api/client';
import { sendFiles } from '@/api/files';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { FilePicker } from '@/ui/FilePicker';
import { PlanSummary } from '@/ui/PlanSummary';

/** Work and who has handed it in, from the tables of a gradebook: looked at, then brought in as looked at. */
export function GradebookDialog({
    at,
    onClose,
    onDone,
}: {
    /** Address of the notices it comes into. */
    at: string;
    onClose: () => void;
    onDone: (page: Schemas['NoticePage']) => void;
}) {
    const [files, setFiles] = useState<File[]>([]);
    const [plan, setPlan] = useState<Schemas['PlanView'] | null>(null);
    const form = (more: Record<string, string> = {}) => {
        const body = new FormData();
        files.forEach((file) => body.append('files[]', file));
        Object.entries(more).forEach(([key, value]) => body.append(key, value));
        return body;
    };
    const look = useAct(() => sendFiles<Schemas['PlanView']>(`${at}/gradebook/plan`, form()), {
        stale: [],
        then: setPlan,
    });
    const bring = useAct(
        (seen: Schemas['PlanView']) =>
            sendFiles<Schemas['NoticePage']>(
                `${at}/gradebook`,
                form({ seed: seen.seed, fingerprint: seen.fingerprint }),
            ),
        // What has changed since is looked at anew.
        { stale: [], then: onDone, failed: () => setPlan(null) },
    );
    const error = look.error || bring.error;
    return (
        <Dialog open wide onClose={onClose} title="From a gradebook">
            {plan ? (
                <PlanSummary plan={plan} words={{ leaving: 'withdrawn' }} />
            ) : (
                <>
                    <p className="mb-4 text-sm">
                        A OneRoster CSV export of the gradebook: the zip, or lineItems.csv and results.csv. Only what is
                        due when and what is missing is kept, no marks. The same file can be brought in again: what it
                        brought before is met and changed.
                    </p>
                    <FilePicker
                        label="Files"
                        multiple
                        accept=".zip,.csv"
                        onChange={(event) => {
                            setFiles([...(event.target.files ?? [])]);
                            look.clear();
                            bring.clear();
                        }}
                    />
                </>
            )}
            {error && (
                <p role="alert" className="mt-3 text-sm text-madder">
                    {error}
                </p>
            )}
            {plan ? (
                <DialogFoot
                    onCancel={() => setPlan(null)}
                    cancel="Other files"
                    disabled={bring.busy || plan.changes === 0}
                    onClick={() => bring.run(plan)}
                >
                    {plan.changes === 0 ? 'Nothing to bring in' : 'Bring it in'}
                </DialogFoot>
            ) : (
                <DialogFoot onCancel={onClose} disabled={look.busy || files.length === 0} onClick={() => look.run()}>
                    Preview
                </DialogFoot>
            )}
        </Dialog>
    );
}
