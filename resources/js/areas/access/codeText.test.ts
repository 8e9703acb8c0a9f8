import { describe, expect, it } from 'vitest';
import { codeSymbols, codeText } from './codeText';

describe('codeText', () => {
    it('writes a whole code as the wall does', () => {
        expect(codeText('kdm4x7r')).toBe('KDM-4X7R');
        expect(codeText('KDM4X7RT')).toBe('KDM4-X7RT');
        expect(codeText('KDM4X7RTB')).toBe('KDM-4X7-RTB');
        expect(codeText('KDM4X7RTBC')).toBe('KDM-4X7R-TBC');
    });
    it('puts the first dash in while it is typed', () => {
        expect(codeText('kd')).toBe('KD');
        expect(codeText('kdm4')).toBe('KDM-4');
    });
    it('takes spaces, dashes of any kind and dots', () => {
        expect(codeSymbols(' kdm – 4x.7r')).toBe('KDM4X7R');
    });
    it('is the same when its own result goes through it again', () => {
        for (const typed of ['k', 'kdm4', 'kdm4x7r', 'kdm4x7rt', 'kdm4x7rtb'])
            expect(codeText(codeText(typed))).toBe(codeText(typed));
    });
});
