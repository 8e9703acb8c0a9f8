<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** What is written to families and students, a page each, in their languages. */
enum LetterKind: string
{
    /** With the code by which a family comes to its account, and a slip to sign. */
    case Family = 'family';
    /** With the login, for those who would lose it over the summer. */
    case Summer = 'summer';
    /** How to come into a section with its code. */
    case Handout = 'handout';

    public function label(): string
    {
        return match ($this) {
            self::Family => 'Family letter',
            self::Summer => 'Summer letter',
            self::Handout => 'Handout',
        };
    }

    /** @return list<string> what stands in braces in its texts, to be filled in */
    public function fields(): array
    {
        return match ($this) {
            self::Family, self::Summer => ['student', 'school', 'section', 'address'],
            self::Handout => ['section', 'school', 'address', 'code'],
        };
    }

    /** @return array<string, string> what each of its texts is called where it is edited */
    public function texts(): array
    {
        return match ($this) {
            self::Family => [
                'heading' => 'Heading',
                'intro' => 'First paragraph',
                'code_label' => 'Above the code',
                'new_title' => 'Without an account: title',
                'new_1' => 'Without an account: step 1',
                'new_2' => 'Without an account: step 2',
                'new_3' => 'Without an account: step 3',
                'known_title' => 'With an account: title',
                'known_1' => 'With an account: step 1',
                'known_2' => 'With an account: step 2',
                'check' => 'Last paragraph',
                'note' => 'Your own paragraph',
                'slip_title' => 'Slip: title',
                'slip_text' => 'Slip: sentence',
                'slip_name' => 'Slip: name',
                'slip_date' => 'Slip: date',
                'slip_signature' => 'Slip: signature',
            ],
            self::Summer => [
                'heading' => 'Heading',
                'intro' => 'First paragraph',
                'user_label' => 'Above the user name',
                'secret_label' => 'Above the passphrase',
                'own_secret' => 'For a password of one’s own',
                'square_only' => 'For those who sign in with the card',
                'sign_on' => 'For those who sign in by the school',
                'step_1' => 'Step 1',
                'step_2' => 'Step 2',
                'keep' => 'Last paragraph',
                'note' => 'Your own paragraph',
            ],
            self::Handout => [
                'heading' => 'Heading',
                'intro' => 'First paragraph',
                'code_label' => 'Above the code',
                'step_1' => 'Step 1',
                'step_2' => 'Step 2',
                'step_3' => 'Step 3',
                'where' => 'Where the code is',
                'note' => 'Your own paragraph',
            ],
        };
    }
}
