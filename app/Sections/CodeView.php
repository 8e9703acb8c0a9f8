<?php

declare(strict_types=1);

namespace App\Sections;

use App\Platform\Resource;

/** A section's code, asked for. */
final readonly class CodeView extends Resource
{
    /**
     * @param  string  $qr the QR of the link as one SVG path, one unit to a module
     * @param  int  $qrSize modules to a side
     * @param  list<string>  $arrived display names of who came in by a code, latest first
     * @param  float  $guessPerDay chance that one address, guessing all day, opens any section
     */
    public function __construct(public string $section, public string $written, public string $link, public string $place, public string $qr, public int $qrSize, public int $students, public array $arrived, public float $guessPerDay, public string $openedAt)
    {
    }
}
