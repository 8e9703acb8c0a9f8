<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\CodeUse;

/** A section's code, asked for. */
final readonly class CodeView extends Resource
{
    /**
     * @param  string  $qr the QR of the link as one SVG path, one unit to a module
     * @param  int  $qrSize modules to a side
     * @param  list<Arrival>  $arrived who came in by this code, latest first
     * @param  int  $waiting newcomers who wait to be let in
     * @param  float  $guessPerDay chance that one address, guessing all day, opens any section
     * @param  float  $collision chance that codes drawn at random meet, before the redraw that prevents it
     * @param  int  $payload symbols without the check symbol
     * @param  float  $typeSize size of the type on the wall, as a share of the picture's width
     * @param  float  $pictureMetres width of a picture, for the sum
     * @param  float  $readableFrom metres from which the code is read on a picture of that width
     * @param  float  $letterHeight millimetres of a capital on it
     */
    public function __construct(
        public string $section,
        public string $written,
        public string $link,
        public string $place,
        public string $qr,
        public int $qrSize,
        public int $students,
        public array $arrived,
        public int $waiting,
        public float $guessPerDay,
        public float $collision,
        public int $payload,
        public string $openedAt,
        public CodeUse $who,
        public ?string $startsAt,
        public ?string $endsAt,
        public ?int $cap,
        public float $typeSize,
        public float $pictureMetres,
        public float $readableFrom,
        public float $letterHeight,
    ) {}
}
