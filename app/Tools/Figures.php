<?php

declare(strict_types=1);

namespace App\Tools;

/**
 * What a bench has measured, a line of JSON each, for bin/bench all, which lays it beside what was measured last. Kept
 * in the file that VANTREL_FIGURES names; nowhere where none is named.
 */
final class Figures
{
    /**
     * @param  string  $unit ratio where it stands beside a yardstick, which moves with the machine as the work does;
     *     else ms, s, MB, % and the like
     * @param  float|null  $goal what it is to keep to
     * @param  bool  $more whether more is better
     */
    public static function note(string $what, float $value, string $unit, ?float $goal = null, bool $more = false): void
    {
        $file = getenv('VANTREL_FIGURES');
        if (is_string($file) && $file !== '') {
            $line = ['what' => $what, 'value' => round($value, 3), 'unit' => $unit, 'goal' => $goal, 'more' => $more];
            file_put_contents(
                $file,
                json_encode($line, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE) . "\n",
                FILE_APPEND,
            );
        }
    }
}
