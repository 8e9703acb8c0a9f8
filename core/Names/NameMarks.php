<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

/**
 * What stands around a name in a cell and is no part of it: a title, who somebody is to the child, a note in brackets,
 * a nickname in quotes, a number before it, a mark of the office. Common practice, no source; words from memory.
 */
final readonly class NameMarks
{
    /** A title before a name, or before the given name that follows a comma. */
    private const TITLE = '/(^|,\s*)(?:(?:mr|mrs|ms|miss|mx|dr|prof|sr|sra|mme|mlle|herr|frau)\b\.?\s+)+(?=\p{L})/iu';

    /** "M. ROWE Tim" is a gentleman in a French list; "M. Night" is an initial. */
    private const MONSIEUR = '/^M\.\s+(?=\p{Lu}{2})/u';

    private const RELATION =
        '(?:step|grand|god|foster )?(?:mother|mom|mum|father|dad|ma|pa|parents?)|parent ?\/ ?guardian|guardian|carer|' .
        'grandparent|grandma|grandpa|aunt|uncle|sister|brother|nanny|madre|padre|mam[áa]|pap[áa]|tutora?|abuel[oa]|' .
        't[íi][oa]|m[èe]re|p[èe]re|tuteur|tutrice|mutter|vater|oma|opa|мати|мама|батько|тато|бабуся|дідусь|母亲|父亲';

    /** What offices write before or after a student's name. */
    private const OFFICE =
        'new(?: student)?|iep|504(?: plan)?|ell|esl|lep|el|sped|gt|gate|speech|ot|pt|rti|bil|dual|transfer(?:red)?|' .
        'withdrawn|wd|moved|moving|returning|retained|late|absent|am|pm|part time|bus|walker|car|nuevo|nueva|nouveau|' .
        'nouvelle|neu|hold|no photo|tbd|see office|see notes?|allergy|allergies|med|meds|medical';

    /** What every pattern below needs one of: a sign that is in no name, or a word that may be none of it. */
    private const AROUND =
        '/[^\p{L}\p{M} ,\'’-]|(?:^| )[-–—]|[-–—](?: |$)|^(?:' .
        self::RELATION .
        ')\b|^(?:' .
        self::OFFICE .
        ')\b|' .
        '(?:^|, *)(?:mr|mrs|ms|miss|mx|dr|prof|sra?|mme|mlle|herr|frau)\b|\b(?:aka|goes by|known as|called|dite?) /iu';

    /**
     * @param  string  $name what is left
     * @param  string  $relationship as the cell states it, '' where it does not
     * @param  string  $kind of what was taken off, in a word or two; '' where nothing was
     */
    private function __construct(public string $name, public string $relationship, public string $kind) {}

    /** Whether there is something in a name that is in none: a figure, an equals sign, a sign of the office's own. */
    public static function isNoName(string $name): bool
    {
        return preg_match(
            '/[^\p{L}\p{M}\s\'’‘ʼʻʹ`´.,()\[\]“”"\/&\p{Pd}·・ªº]/u',
            (string) preg_replace('/ (?:2nd|3rd|4th|5th)$/i', '', $name),
        ) === 1;
    }

    public static function apart(string $cell): self
    {
        // A plain name, as most are, has nothing around it.
        if (preg_match(self::AROUND, $cell) !== 1) {
            return new self($cell, '', '');
        }
        $relationship = $kind = '';
        $name = $cell;
        $off = function (string $pattern, string $with, string $what) use (&$name, &$kind): string {
            if (preg_match($pattern, $name, $m) !== 1) {
                return '';
            }
            $rest = trim((string) preg_replace($pattern, $with, $name, 1), " \t\u{A0}");
            if (preg_match('/\p{L}/u', $rest) !== 1) {
                return '';
            }
            [$name, $kind] = [$rest, $kind === '' ? $what : 'notes left out'];

            return trim($m[1] ?? '');
        };
        // All of it in quotation marks is nobody's nickname.
        if (preg_match('/^[“”"„«]\s*([^“”"„«»]+?)\s*[“”"»]$/u', $name, $m) === 1) {
            [$name, $kind] = [$m[1], 'quotation marks left out'];
        }
        $off('/^\s*\d{1,3}[.)]\s+(?=\p{L})/u', '', 'number left out');
        $off('/^\W*?((?:' . self::OFFICE . '))\s*[-–—:*]+\s*(?=\p{L})/iu', '', 'note left out');
        $off('/\s+[^\p{L}\p{M}\p{N}\s.,\'’()]+\s*((?:' . self::OFFICE . ')|\d[\w ]{0,10})\s*$/iu', '', 'note left out');
        $off('/^[^\p{L}\p{M}\p{N}\s(\[“"\'’‘ʻ@=]+(?=.*\p{L})/u', '', 'signs left out');
        $off('/(?<=[\p{L}\p{M}.\'’])[^\p{L}\p{M}\p{N}\s.)\]”"\'’]+$/u', '', 'signs left out');
        $relation = '(' . self::RELATION . ')';
        foreach (
            [
                "/^\s*$relation\s*[:–—=]\s*/iu",
                "/^\s*$relation\s+-\s*/iu",
                "/^\s*$relation\s+(?=\p{L}[^ ]*\s+\p{L})/iu",
                "/\s*[(\[]\s*$relation\s*[)\]]\s*/iu",
                "/\s+[-–—]\s*$relation\s*$/iu",
            ]
            as $pattern
        ) {
            $said = $off($pattern, '', 'relationship taken out');
            $relationship = $relationship !== '' ? $relationship : $said;
        }
        $off(self::TITLE, '$1', 'title left out');
        $off(self::MONSIEUR, '', 'title left out');
        $off(
            '/\s+(?:a\.?k\.?a\.?|goes by|known as|called|dit|dite)\s+\p{L}[\p{L} .\'’-]*$/iu',
            '',
            'other name left out',
        );
        if (preg_match('/[(\[“"*]/u', $name) === 1) {
            $bare = trim(
                (string) preg_replace(['/\s*[(\[][^)\]]*[)\]]\s*/u', '/\s*[“"][^”"]*[”"]\s*/u', '/\*+/'], ' ', $name),
            );
            $bare = str_replace(' ,', ',', (string) preg_replace('/ {2,}/', ' ', $bare));
            if ($bare !== '' && $bare !== $name) {
                [$name, $kind] = [$bare, $kind === '' ? 'note left out' : 'notes left out'];
            }
        }

        return new self($name, $relationship, $kind);
    }
}
