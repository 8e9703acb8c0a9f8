<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\PrintRoom\CardFace;
use Vantrel\Core\PrintRoom\FaceLine;
use Vantrel\Core\PrintRoom\FaceText;
use Vantrel\Core\PrintRoom\Paper;

/**
 * Decides how what is on a card is set: in one line, smaller, over two lines; or says that it does not fit. Nothing is
 * ever cut.
 */
final class CardSetting
{
    /** @var array<string, CardFace|null> by what is set over two lines */
    private array $faces = [];

    public function __construct(
        private readonly PrintedPages $pdf,
        private readonly Paper $paper,
        private readonly string $school,
        private readonly string $address,
    ) {}

    public static function faceOf(FaceText $what): Face
    {
        return match ($what) {
            FaceText::Name => Face::Serif,
            FaceText::UserName, FaceText::Secret => Face::Mono,
            default => Face::Sans,
        };
    }

    /** @return SetCard|null null where it does not fit */
    public function of(Card $card): ?SetCard
    {
        $texts = $this->texts($card);
        $twice = [];
        // What is set over two lines leaves less room for the rest, which may have to follow.
        for ($round = 0; $round < 4; $round++) {
            $face = $this->face($twice);
            if ($face === null) {
                return null;
            }
            $more = [];
            foreach ($face->lines as $line) {
                $parts = $this->parts($line, $texts[$line->what->value]);
                if ($parts === null && ($line->what->matters() || $line->what === FaceText::Place)) {
                    if ($line->lines === 2) {
                        return null;
                    }
                    $more[] = $line->what;
                }
            }
            if ($more === []) {
                return $this->set($face, $texts);
            }
            $twice = [...$twice, ...$more];
        }

        return null;
    }

    /** @param  array<string, string>  $texts */
    private function set(CardFace $face, array $texts): SetCard
    {
        $lines = [];
        foreach ($face->lines as $line) {
            // The school's name and its address may be left out; whoever has the card knows them.
            foreach ($this->parts($line, $texts[$line->what->value]) ?? [] as $i => [$part, $size]) {
                $lines[] = [$line, $part, $size, $line->y + $i * FaceLine::leading($line->size)];
            }
        }

        return new SetCard($face, $lines);
    }

    /**
     * The parts a text is set in, each with the size it fits in.
     *
     * @return list<array{string, float}>|null null where it does not fit
     */
    private function parts(FaceLine $line, string $text): ?array
    {
        if ($text === '') {
            return [];
        }
        if ($line->lines === 1) {
            $size = $this->sizeOf($line, [$text]);

            return $size === null ? null : [[$text, $size]];
        }
        $best = null;
        foreach (self::breaks($line->what, $text) as $halves) {
            $size = $this->sizeOf($line, $halves);
            if ($size !== null && ($best === null || $size > $best[0][1])) {
                $best = array_map(fn(string $half): array => [$half, $size], $halves);
            }
        }

        return $best;
    }

    /** @param  list<string>  $parts */
    private function sizeOf(FaceLine $line, array $parts): ?float
    {
        $face = self::faceOf($line->what);
        $least = $line->size;
        foreach ($parts as $part) {
            $size = $this->pdf->fitting($part, $face, $least, CardFace::LEAST, $line->width);
            if ($size === null) {
                return null;
            }
            $least = $size;
        }

        return $least;
    }

    /**
     * In two, where a reader would: between words, behind the point of a user name, behind a hyphen.
     *
     * @return list<array{string, string}>
     */
    private static function breaks(FaceText $what, string $text): array
    {
        $at = $what === FaceText::UserName ? '/[.\-_]/u' : '/[\s\-]/u';
        preg_match_all($at, $text, $found, PREG_OFFSET_CAPTURE);
        $breaks = [];
        foreach ($found[0] as [$sign, $offset]) {
            $breaks[] = [trim(substr($text, 0, $offset + strlen($sign))), trim(substr($text, $offset + strlen($sign)))];
        }

        return array_values(array_filter($breaks, fn(array $b): bool => $b[0] !== '' && $b[1] !== ''));
    }

    /** @param  list<FaceText>  $twice */
    private function face(array $twice): ?CardFace
    {
        $key = implode(' ', array_map(fn(FaceText $t): string => $t->value, $twice));
        if (!array_key_exists($key, $this->faces)) {
            $sheet = $this->paper->sheet;
            $this->faces[$key] = CardFace::of($sheet->cardWidth, $sheet->cardHeight, $twice, $this->paper->shows);
        }

        return $this->faces[$key];
    }

    /** @return array<string, string> */
    private function texts(Card $card): array
    {
        // What the school's way of signing in does not take is not printed either.
        $typed = $card->way === Way::Passphrase || $card->way === Way::Own;

        return [
            FaceText::Name->value => $card->name,
            FaceText::Place->value => $card->place,
            FaceText::UserLabel->value => 'User name',
            FaceText::UserName->value => $card->userName,
            FaceText::SecretLabel->value => match (true) {
                !$typed => 'To sign in',
                $card->passphrase === '' => 'Password',
                default => 'Passphrase',
            },
            FaceText::Secret->value => match (true) {
                $card->way === Way::Card => 'point the camera here',
                !$typed => 'the school’s sign-on',
                $card->passphrase === '' => 'your own',
                default => $card->passphrase,
            },
            FaceText::School->value => $this->school,
            FaceText::Address->value => $this->address,
        ];
    }
}
