<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\Language;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Pasted;

/**
 * Whom somebody means who types addresses, numbers and user names to ask students or families into a section. A mail
 * about a child goes to an address of theirs, or of a guardian who may hear of them, and to nobody who is kept away;
 * and what is said of those left out names nobody, since a teacher may type what a stranger gave them.
 */
final class Invitees
{
    /** As many at once: some sections full. */
    public const MOST = 200;

    /** @var list<Invitee> */
    public array $invited = [];

    /** @var list<array{string, string}> what was typed, and why nothing goes there */
    public array $leftOut = [];

    /** @var array<string, true> address and student */
    private array $taken = [];

    /**
     * @param  bool  $family whether the families are written to, not the students
     * @param  string  $language a tag, for those whose own is not known
     * @param  list<KnownStudent>  $known all of the school whom anything typed could mean
     * @param  list<array{string, string|null}>  $open address and student of invitations that wait
     */
    private function __construct(
        private readonly bool $family,
        private readonly string $language,
        private readonly array $known,
        array $open,
    ) {
        foreach ($open as [$email, $student]) {
            $this->taken["$email $student"] = true;
        }
    }

    /**
     * @param  list<string>  $lines as {@see lines()} reads them
     * @param  list<KnownStudent>  $known
     * @param  list<array{string, string|null}>  $open
     *
     * @throws Refusal where there are none or too many
     */
    public static function of(array $lines, bool $family, string $language, array $known, array $open): self
    {
        if ($lines === []) {
            throw new Refusal('Type at least one address, number or user name.', 'who');
        }
        if (count($lines) > self::MOST) {
            throw new Refusal('At most ' . self::MOST . ' at once. Send the rest after them.', 'who');
        }
        $self = new self($family, in_array($language, Language::WRITTEN, true) ? $language : 'en', $known, $open);
        foreach ($lines as $line) {
            $mail = MailAddress::read($line);
            $why = $mail === null ? $self->byKey($line) : $self->byAddress($line, $mail->address);
            if ($why !== null) {
                $self->leftOut[] = [$line, $why];
            }
        }

        return $self;
    }

    /** @return list<string> each once */
    public static function lines(string $text): array
    {
        return array_values(array_unique(Pasted::pieces($text)));
    }

    /** @return string|null why nothing goes there */
    private function byAddress(string $line, string $address): ?string
    {
        $own = array_filter($this->known, fn(KnownStudent $s): bool => $s->email === $address);
        $ties = [];
        foreach ($this->known as $student) {
            foreach ($student->guardians as $guardian) {
                if ($guardian->email === $address) {
                    $ties[] = [$student, $guardian];
                }
            }
        }
        foreach ($ties as [, $guardian]) {
            if ($guardian->keptAway) {
                return 'is not written to. Ask the office.';
            }
        }
        $ties = array_values(array_filter($ties, fn(array $t): bool => $t[1]->hears()));
        if ($this->family) {
            return match (true) {
                count($ties) > 1 => 'is of several children. Type the number or user name of the one you mean.',
                $ties !== [] => $this->take($line, $address, $ties[0][0], $ties[0][1]),
                $own !== [] => 'is a student’s own. Invite students, or type the number or user name.',
                default => $this->take($line, $address, null, null),
            };
        }

        return match (true) {
            count($own) > 1 => 'is of several students. Type the number or user name of the one you mean.',
            $own !== [] => $this->take($line, $address, array_values($own)[0], null),
            $ties !== [] => 'is a guardian’s. Write to the family, or type the student’s number or user name.',
            default => $this->take($line, $address, null, null),
        };
    }

    private function byKey(string $line): ?string
    {
        $key = mb_strtolower($line);
        $found = array_values(
            array_filter(
                $this->known,
                fn(KnownStudent $s): bool => in_array($key, array_map(mb_strtolower(...), $s->keys), true),
            ),
        );
        if ($found === []) {
            return 'is no address, and no student’s number or user name.';
        }
        if (count($found) > 1) {
            return 'is of several students. Type the user name.';
        }
        $student = $found[0];
        if (!$this->family) {
            return $student->email === null
                ? 'has no address that is known to be theirs.'
                : $this->take($line, $student->email, $student, null);
        }
        $why = 'has no guardian on record who can be written to.';
        foreach ($student->guardians as $guardian) {
            if ($guardian->email !== null && $guardian->hears()) {
                $said = $this->take($line, $guardian->email, $student, $guardian);
                $why = $why === null ? null : $said;
            }
        }

        return $why;
    }

    private function take(string $line, string $address, ?KnownStudent $student, ?KnownGuardian $guardian): ?string
    {
        if ($student?->isIn === true) {
            return 'is in the section already.';
        }
        $key = "$address $student?->id";
        if (isset($this->taken[$key])) {
            return 'has been invited already, and can be sent to again below.';
        }
        $this->taken[$key] = true;
        $language = $guardian->language ?? $student?->language;
        $this->invited[] = new Invitee(
            $line,
            $address,
            $this->family,
            $student?->id,
            $guardian?->id,
            (string) $student?->name,
            in_array($language, Language::WRITTEN, true) ? $language : $this->language,
        );

        return null;
    }
}
