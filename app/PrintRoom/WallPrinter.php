<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Models\School;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\PrintRoom\LetterKind;

/** Prints what hangs on walls or is handed out: posters, slips and handouts with the code of a section. */
final readonly class WallPrinter
{
    public function __construct(private LetterTexts $texts) {}

    /**
     * @param  list<string>  $sectionIds
     * @param  list<string>  $languages of handouts
     * @param  int  $copies of slips, for each section
     * @param  bool  $without whether our words stand where the school's own are missing in a language
     * @return string the PDF
     *
     * @throws Refusal where a section has no code that works
     */
    public function print(
        School $school,
        array $sectionIds,
        WallKind $kind,
        string $paper,
        array $languages,
        int $copies,
        bool $without,
    ): string {
        $codes = $this->codes($school, $sectionIds);

        return match ($kind) {
            WallKind::Poster => WallPdf::posters($codes, $paper),
            WallKind::Slips => WallPdf::slips($codes, $paper, $copies),
            WallKind::Handout => $this->handouts($school, $codes, $paper, $languages, $without),
        };
    }

    /**
     * @param  list<OpenCode>  $codes
     * @param  list<string>  $languages
     */
    private function handouts(School $school, array $codes, string $paper, array $languages, bool $without): string
    {
        $languages = $languages === [] ? ['en'] : array_values(array_unique($languages));
        $wordings = $this->texts->of($school, LetterKind::Handout);
        if (!$without) {
            $wordings->mustBeWhole($languages);
        }
        $letters = [];
        foreach ($codes as $code) {
            foreach ($languages as $language) {
                $letter = new Letter(
                    $language,
                    $wordings->languages[$language],
                    [
                        'section' => $code->section,
                        'school' => $code->school,
                        'address' => $code->place,
                        'code' => $code->written,
                    ],
                    [],
                    $code->link,
                );
                $letters[] = $letter->with([[$letter->text('code_label'), $code->written]], $code->link, null);
            }
        }
        $pdf = new LetterPdf($paper, $school->name, 'Handouts', $languages[0]);
        if (array_filter($letters, fn(Letter $l): bool => !$pdf->fits($l)) !== []) {
            throw new Refusal('The handout does not fit on a page. Shorten the school’s own words.', 'wording');
        }

        return $pdf->of($letters);
    }

    /**
     * @param  list<string>  $sectionIds
     * @return list<OpenCode> in the order of the sections' names
     */
    private function codes(School $school, array $sectionIds): array
    {
        $base = rtrim((string) config('app.url'), '/');
        $place = preg_replace('#^https?://#', '', $base) . '/in';
        $rows = DB::table('sections as s')
            ->leftJoin('join_codes as c', fn($on) => $on->on('c.section_id', '=', 's.id')->where('c.state', 'open'))
            ->where('s.school_id', $school->id)
            ->where('s.state', 'open')
            ->whereIn('s.id', $sectionIds)
            ->orderBy('s.name')
            ->orderBy('s.id')
            ->get(['s.name', 'c.code']);
        $without = array_values(array_map(strval(...), $rows->whereNull('code')->pluck('name')->all()));
        if ($without !== [] || $rows->isEmpty()) {
            throw new Refusal(
                $without === []
                    ? 'None of these sections is open.'
                    : Words::some($without) .
                        (count($without) === 1 ? ' has no code' : ' have no codes') .
                        '. Open one on the page of the section first.',
                'section_ids',
            );
        }
        $codes = [];
        foreach ($rows as $row) {
            $code = CodeSymbols::parse((string) $row->code);
            $codes[] = new OpenCode(
                $school->name,
                (string) $row->name,
                $code->written(),
                "$base/in/$code->symbols",
                $place,
            );
        }

        return $codes;
    }
}
