<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Models\School;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\LetterKind;

/** A page of a letter for nobody: what is written is looked at before it goes to hundreds. */
final readonly class SampleLetter
{
    /** A child that is nobody, by language. */
    private const NAMES = [
        'en' => 'Noor Haddad',
        'es' => 'Martín Echeverría Solís',
        'fr' => 'Zoé Lefèvre',
        'ar' => 'نور حداد',
        'vi' => 'Nguyễn Thị Phương',
        'uk' => 'Олена Шевчук',
        'zh' => '王小明',
    ];

    public function __construct(private LetterTexts $texts) {}

    /** @return string the PDF; its codes open nothing */
    public function print(School $school, LetterKind $kind, string $language, string $paper): string
    {
        $base = rtrim((string) config('app.url'), '/');
        $letter = new Letter(
            $language,
            $this->texts->of($school, $kind)->languages[$language],
            [
                'student' => self::NAMES[$language],
                'school' => $school->name,
                'section' => '3 Heron',
                'address' =>
                    preg_replace('#^https?://#', '', $base) .
                    match ($kind) {
                        LetterKind::Family => '/family',
                        LetterKind::Summer => '/',
                        LetterKind::Handout => '/in',
                    },
                'code' => 'AAA-AAAA',
            ],
            [],
            $base,
        );
        $letter = $letter->with(
            match ($kind) {
                LetterKind::Family => [[$letter->text('code_label'), 'AAA-AAAA-AAA']],
                LetterKind::Summer => [
                    [$letter->text('user_label'), 'noor.haddad'],
                    [$letter->text('secret_label'), 'three short words'],
                ],
                LetterKind::Handout => [[$letter->text('code_label'), 'AAA-AAAA']],
            },
            $base,
            $kind === LetterKind::Family ? 'AAA-AAAA' : null,
        );
        $pdf = new LetterPdf($paper, $school->name, $kind->label(), $language);
        if (!$pdf->fits($letter)) {
            throw new Refusal('These words do not fit on a page. Shorten them.', 'wording');
        }

        return $pdf->of([$letter]);
    }
}
