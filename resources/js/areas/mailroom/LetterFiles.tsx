import { useAct } from '@/api/act';
import type { Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import { Button } from '@/ui/Button';
import { FilePicker } from '@/ui/FilePicker';
import type { LetterDoors } from './letter';

type Kept = Schemas['LetterFile'];

const size = (bytes: number) =>
    bytes < 100_000 ? `${String(Math.ceil(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

/** Pages and pictures that go with a letter. */
export function LetterFiles({
    doors,
    files,
    onChange,
}: {
    doors: LetterDoors;
    files: Kept[];
    onChange: (files: Kept[]) => void;
}) {
    const add = useAct((file: File) => doors.file(file), { stale: [], then: (kept) => onChange([...files, kept]) });
    return (
        <div className="text-sm">
            {files.length > 0 && (
                <ul className="mb-2" aria-label="Files that go with it">
                    {files.map((file) => (
                        <li key={file.id} className="flex flex-wrap items-center gap-3 py-1">
                            <span className="break-all">{file.name}</span>
                            <span className="text-muted">{size(file.size)}</span>
                            <Button
                                aria-label={`Take ${file.name} off`}
                                onClick={() => onChange(files.filter((f) => f.id !== file.id))}
                            >
                                Take off
                            </Button>
                        </li>
                    ))}
                </ul>
            )}
            {files.length < MOST.letterFiles && (
                <FilePicker
                    label="Add a file: PDF, PNG or JPEG, up to 2 MB"
                    accept=".pdf,.png,.jpg,.jpeg"
                    disabled={add.busy}
                    onChange={(event) => {
                        const file = event.target.files?.[0];
                        if (file) add.run(file);
                        // The same file can be chosen again.
                        event.target.value = '';
                    }}
                />
            )}
            {add.error && (
                <p role="alert" className="mt-1 text-madder">
                    {add.error}
                </p>
            )}
        </div>
    );
}
