<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Refusal;

/** What stands on a card, of what may be left off. The name and the user name always do. */
final readonly class CardShows
{
    /** What a school may leave off, with what is said of it. */
    private const OPTIONAL = [
        FaceText::Place,
        FaceText::SecretLabel,
        FaceText::Secret,
        FaceText::School,
        FaceText::Address,
    ];

    /** @param  list<FaceText>  $without */
    private function __construct(public array $without, public bool $square, public bool $pictures) {}

    public static function all(): self
    {
        return new self([], true, false);
    }

    /**
     * @param  list<FaceText>  $without
     * @param  bool  $pictures whether a row of pictures says what to do, for children who do not read yet
     *
     * @throws Refusal where nothing would be left to sign in with
     */
    public static function of(array $without, bool $square, bool $pictures): self
    {
        $without = array_values(array_filter(self::OPTIONAL, fn(FaceText $t): bool => in_array($t, $without, true)));
        if (in_array(FaceText::Secret, $without, true)) {
            $without[] = FaceText::SecretLabel;
            if (!$square) {
                throw new Refusal('With neither the passphrase nor the square, a card opens nothing.', 'square');
            }
        }
        if ($pictures && !$square) {
            throw new Refusal('The pictures show how to point a camera at the square: leave it on the card.', 'square');
        }

        return new self(array_values(array_unique($without, SORT_REGULAR)), $square, $pictures);
    }
}
