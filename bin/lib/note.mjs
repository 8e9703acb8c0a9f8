// What a bench has measured, as app/Tools/Figures.php keeps it.
import { appendFileSync } from 'node:fs';

export function note(what, value, unit, goal = null, more = false) {
    const file = process.env.VANTREL_FIGURES;
    if (file)
        appendFileSync(file, JSON.stringify({ what, value: Math.round(value * 1000) / 1000, unit, goal, more }) + '\n');
}
