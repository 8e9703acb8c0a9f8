import { useNotice } from './Notice';

/** Puts text on the clipboard and says what has been copied, or that it could not be. */
export function useCopy(): (text: string, what: string) => void {
    const say = useNotice();
    return (text, what) =>
        void navigator.clipboard.writeText(text).then(
            () => say(`Copied: ${what}.`),
            () => say('The browser does not let this page copy. Select the text and copy it by hand.', { bad: true }),
        );
}
