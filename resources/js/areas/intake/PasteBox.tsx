import { useState } from 'react';
import { Button } from '@/ui/Button';

/** A place to paste into: cells of a spreadsheet, a table, or one name a line. */
export function PasteBox({ onBring }: { onBring: (pasted: { text: string; html: string }) => void }) {
    const [text, setText] = useState('');
    const [html, setHtml] = useState('');
    return (
        <form
            className="flex flex-col gap-3"
            onSubmit={(event) => {
                event.preventDefault();
                onBring({ text, html });
            }}
        >
            <label className="text-sm" htmlFor="paste">
                Cells copied from a spreadsheet, with or without their header, or one name a line
            </label>
            <textarea
                id="paste"
                autoFocus
                rows={12}
                value={text}
                onChange={(event) => {
                    setText(event.target.value);
                    // What was typed after pasting is not in the table any more.
                    setHtml('');
                }}
                onPaste={(event) => {
                    if (text !== '') return;
                    event.preventDefault();
                    setText(event.clipboardData.getData('text/plain'));
                    setHtml(event.clipboardData.getData('text/html'));
                }}
                className="rounded-card border border-ink/60 bg-paper p-2 font-mono text-sm"
            />
            <div className="text-right">
                <Button kind="primary" type="submit" className="min-h-10" disabled={text.trim() === ''}>
                    Read the list
                </Button>
            </div>
        </form>
    );
}
