// @vitest-environment node
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

/** Contrast ratio by WCAG 2.2, "relative luminance" and "contrast ratio". */
function contrast(a: string, b: string): number {
    const luminance = (hex: string) => {
        const [r, g, b_] = [1, 3, 5].map((i) => {
            const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
            return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
        }) as [number, number, number];
        return 0.2126 * r + 0.7152 * g + 0.0722 * b_;
    };
    const [x, y] = [luminance(a), luminance(b)].sort((m, n) => n - m) as [number, number];
    return (x + 0.05) / (y + 0.05);
}

const css = readFileSync(new URL('./app.css', import.meta.url), 'utf8');

function tokens(selector: RegExp): Record<string, string> {
    const block = selector.exec(css)?.[1] ?? '';
    return Object.fromEntries([...block.matchAll(/--(\w+): (#[0-9a-f]{6});/g)].map((m) => [m[1] ?? '', m[2] ?? '']));
}

const themes = {
    light: tokens(/^:root \{([^}]*)\}/m),
    dark: tokens(/:root\[data-theme='dark'\] \{([^}]*)\}/),
    'dark by the system': tokens(/:root:not\(\[data-theme='light'\]\) \{([^}]*)\}/),
};

describe('contrast', () => {
    it('is computed as the standard does', () => {
        // #767676 on white is the grey that WCAG's own techniques give as just above 4.5 : 1.
        expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
        expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
    });
    for (const [name, t] of Object.entries(themes)) {
        it(`is at least 4.5 for every pair of text and ground, ${name}`, () => {
            expect(Object.keys(t).length).toBeGreaterThanOrEqual(7);
            for (const text of ['ink', 'muted', 'madder']) {
                for (const ground of ['paper', 'tint']) {
                    expect(contrast(t[text] ?? '', t[ground] ?? ''), `${text} on ${ground}`).toBeGreaterThanOrEqual(
                        4.5,
                    );
                }
            }
            // The focus ring is a marigold line beside one of ink: one of the two is seen on any paper (1.4.11, 3 : 1).
            expect(
                Math.max(contrast(t.ink ?? '', t.paper ?? ''), contrast(t.marigold ?? '', t.paper ?? '')),
            ).toBeGreaterThanOrEqual(3);
            expect(css).toMatch(/:focus-visible \{[^}]*var\(--marigold\)[^}]*var\(--ink\)/);
        });
    }
    it('is the same in both ways to the dark', () => {
        expect(themes['dark by the system']).toEqual(themes.dark);
    });
});
