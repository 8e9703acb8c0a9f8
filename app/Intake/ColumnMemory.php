<?php

declare(strict_types=1);

namespace App\Intake;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Table\ReadingAnswers;

/** What a person said of the columns of a file, remembered for the next file of the same shape. */
final class ColumnMemory
{
    /**
     * The answers with what is remembered, for sheets of which nothing has been said yet.
     *
     * @param  array<string, string>  $answers
     * @return array<string, string>
     */
    public function recall(string $schoolId, BookReader $book, array $answers): array
    {
        $said = new ReadingAnswers($answers);
        foreach ($book->layouts as $i => $layout) {
            if ($layout->shape() === null || $said->layoutOf($i) !== []) {
                continue;
            }
            $known = DB::table('column_mappings')
                ->where('school_id', $schoolId)
                ->where('shape', $layout->shape())
                ->value('said');
            foreach ((array) json_decode((string) $known, true) as $what => $answer) {
                $answers["t$i.$what"] = (string) $answer;
            }
        }

        return $answers;
    }

    /** @param  array<string, string>  $answers */
    public function keep(string $schoolId, BookReader $book, array $answers): void
    {
        $said = new ReadingAnswers($answers);
        foreach ($book->layouts as $i => $layout) {
            $kept = $said->layoutOf($i);
            if ($kept !== [] && $layout->shape() !== null) {
                DB::table('column_mappings')->upsert(
                    [
                        [
                            'school_id' => $schoolId,
                            'shape' => $layout->shape(),
                            'said' => json_encode($kept, JSON_THROW_ON_ERROR),
                            'used_at' => now(),
                        ],
                    ],
                    ['school_id', 'shape'],
                    ['said', 'used_at'],
                );
            }
        }
    }
}
