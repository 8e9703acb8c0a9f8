<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Accounts\Totp;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Accounts\WordList;
use Vantrel\Core\Codes\Randomness;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\HashedSet;

/** Gives the numbers it was handed, in turn. */
function drawingInTurn(int ...$numbers): Randomness
{
    return new class ($numbers) implements Randomness {
        /** @var list<int> */
        public array $bounds = [];

        /** @param  array<int>  $numbers */
        public function __construct(private array $numbers) {}

        public function below(int $bound): int
        {
            $this->bounds[] = $bound;

            return array_shift($this->numbers) ?? 0;
        }

        public function bytes(int $length): string
        {
            return str_repeat('a', $length);
        }
    };
}

/** @return list<string> */
function madeUpWords(int $n): array
{
    return array_map(fn(int $i): string => 'word' . strtr((string) $i, '0123456789', 'abcdefghij'), range(1, $n));
}

it('bears so many wrong tries of each kind, for so long', function (): void {
    // The table of docs/security.md: what each limit is for stands beside its case.
    $limits = [];
    foreach (Limit::cases() as $limit) {
        $limits[$limit->name] = [$limit->most(), $limit->seconds()];
    }
    ksort($limits);
    expect($limits)->toBe([
        'AskAddress' => [2000, 3600],
        'AskCode' => [300, 3600],
        'CardAddress' => [300, 900],
        'CodeAccount' => [10, 86400],
        'CodeAddress' => [20, 86400],
        'CodeInstallation' => [300, 86400],
        'FamilyAddress' => [5000, 86400],
        'InviteAccount' => [300, 86400],
        'NamesCode' => [600, 3600],
        'PasswordAgain' => [5, 900],
        'Pictures' => [5, 900],
        'ProofAddress' => [500, 86400],
        'ProofCode' => [60, 86400],
        'ProofStudent' => [5, 86400],
        'Requests' => [1200, 60],
        'ResetAddress' => [2000, 3600],
        'ResetPerson' => [5, 3600],
        'RoomAddress' => [300, 900],
        'SecondFactor' => [5, 900],
        'SeekAddress' => [60, 3600],
        'SeekSchool' => [600, 86400],
        'SignInAddress' => [400, 900],
        'SignInDevice' => [10, 900],
        'SignInName' => [10, 900],
        'SignInNameAddress' => [1, 86400],
    ]);
});

it('makes user names by the pattern of the school', function (): void {
    $names = fn(string $pattern = '{given}.{family}', array $unfit = [], array $taken = []): UserNames => new UserNames(
        array_fill_keys($taken, true),
        $unfit,
        $pattern,
    );
    expect($names()->give('Xin Yi', 'Wu'))
        ->toBe('xinyi.wu')
        // A name of more than three letters stands alone.
        ->and($names()->give('Anna Maria', 'de la Cruz'))
        // A family name is kept whole, as long as it goes.
        ->toBe('anna.delacruz')
        ->and($names()->give('Mateo', 'Ortiz Reyes'))
        ->toBe('mateo.ortizreyes')
        ->and($names()->give('Bartholomew', 'van der Meer Albuquerque'))
        ->toBe('bartholomew.vandermeer')
        ->and($names()->give('Bartholomew', 'de la Castellanosmontealegre'))
        ->toBe('bartholomew.delacastellanosmon')
        ->and($names()->give('Jean-Luc', "O'Neil"))
        ->toBe('jean.oneil')
        ->and($names('{g}{family}')->give('Noor', 'Haddad'))
        ->toBe('nhaddad')
        ->and($names('{given}{f}')->give('Noor', 'Haddad'))
        ->toBe('noorh')
        ->and($names('{given}.{family}')->give('Noor', ''))
        ->toBe('noor')
        ->and($names('{given}..{family}')->give('', 'Haddad'))
        ->toBe('haddad')
        // Two letters are the least.
        ->and($names()->give('A', ''))
        ->toStartWith('reader')
        ->and($names()->give('Jo', ''))
        ->toBe('jo')
        ->and($names('{given}{family}')->give(str_repeat('a', 60), 'b'))
        ->toHaveLength(strlen($names()->give(str_repeat('a', 90), 'b')))
        ->and($names(taken: ['noor.haddad', 'noor.haddad2'])->give('Noor', 'Haddad'))
        ->toBe('noor.haddad3');
    $twice = $names();
    expect([$twice->give('Noor', 'Haddad'), $twice->give('Noor', 'Haddad'), $twice->isTaken('NOOR.Haddad')])->toBe([
        'noor.haddad',
        'noor.haddad2',
        true,
    ]);
});

it('gives no name in which something rude is read', function (string $given, string $family, string $name): void {
    $made = (new UserNames([], ['dick', 'ass'], '{given}.{family}'))->give($given, $family);
    // Instead of it a number that goes by the name, so that it is the same whoever else comes.
    expect(preg_replace("/^reader[1-9]\\d{3}$/", 'reader', $made))->toBe($name);
})->with([
    'inside one name it is a coincidence' => ['Benedick', 'Vale', 'benedick.vale'],
    'as a given name it is one' => ['Dick', 'Vale', 'dick.vale'],
    'at the start' => ['Dickson', 'Vale', 'reader'],
    'across the join' => ['Nadi', 'Ckson', 'reader'],
    'as the family name' => ['Ada', 'Dick', 'reader'],
    'inside the family name' => ['Ada', 'Glasser', 'ada.glasser'],
]);

it('gives no two passphrases of a sheet that differ by one letter', function (): void {
    $words = new WordList(['maple', 'otter', 'candy', 'sandy', ...madeUpWords(260)]);
    $random = drawingInTurn(0, 1, 2, 0, 1, 3, 0, 1, 4);
    $sheet = new PassphraseSheet($words, $random);
    expect($sheet->draw())
        ->toBe('maple otter candy')
        // "sandy" is but a letter away, and is drawn again.
        ->and($sheet->draw())
        ->toBe('maple otter wordb')
        ->and(array_unique($random->bounds))
        ->toBe([264]);
    $near = new PassphraseSheet($words, drawingInTurn());
    expect($near->accepts('maple otter candy'))->toBeTrue();
    foreach (
        [
            'the same' => 'maple otter candy',
            'the first letter' => 'naple otter candy',
            'the last letter' => 'maple otter cands',
            'one more at the end' => 'maple otter candys',
            'one more at the start' => 'amaple otter candy',
            'one less at the start' => 'aple otter candy',
            'one less at the end' => 'maple otter cand',
            'one less within' => 'maple oter candy',
        ]
        as $phrase
    ) {
        expect($near->accepts($phrase))->toBeFalse($phrase);
    }
    // What was turned away keeps nothing else away.
    expect($near->accepts('maple otter randys'))
        ->toBeTrue()
        ->and($near->accepts('maple otter mighty'))
        ->toBeTrue()
        ->and(PassphraseSheet::fold("  Maple-OTTER\tcandy!"))
        ->toBe('maple otter candy');
});

it('takes a word list of 256 words or more, none twice', function (): void {
    expect(fn() => new WordList(madeUpWords(255)))
        ->toThrow(InvalidArgumentException::class)
        ->and((new WordList(madeUpWords(256)))->bits(3))
        ->toBe(24.0)
        ->and(fn() => new WordList([...madeUpWords(256), 'worda', 'wordb']))
        ->toThrow(InvalidArgumentException::class);
    $read = WordList::fromText(' ' . implode(" \r\n\n", madeUpWords(256)) . "\n");
    expect($read->words)->toBe(madeUpWords(256));
});

it('takes a password to its edges', function (string $password, bool $taken, array $personal = []): void {
    $rules = PasswordRules::forStudents();
    $taken
        ? expect($rules->mustTake($password, HashedSet::of(['sunshine']), $personal))->toBeNull()
        : expect(fn() => $rules->mustTake($password, HashedSet::of(['sunshine']), $personal))->toThrow(Refusal::class);
})->with([
    'eight characters' => ['wxyzabcq', true],
    'seven' => ['wxyzabc', false],
    '72 bytes' => [str_repeat('wxyzabcd', 9), true],
    '73 bytes' => [str_repeat('wxyzabcd', 9) . 'q', false],
    'seventy-two bytes of 36 letters' => [str_repeat('éàüö', 9), true],
    'three characters over and over' => ['abcabcabc', false],
    'four' => ['abcdabcdabcd', true],
    'a common one with figures behind it' => ['Sunshine2026', false],
    'a common one with signs between' => ['sun-shine!', false],
    'a name of four letters and five more' => ['noorwxyzq', false, ['Noor']],
    'a name of four letters and six more' => ['noorwxyzqk', true, ['Noor']],
    'a name of three letters' => ['adawxyzq', true, ['Ada']],
    'a name with a blank in it' => ['xinyi1234', false, ['Xin Yi']],
    'a name that is not in it' => ['wxyzabcq', true, ['Noor Haddad']],
]);

it('reads bands of grades to their edges', function (): void {
    expect(SignInPolicy::read(' -1:0 card ,, 5:5 own ')->text())
        ->toBe('-1:0 card, 5:5 own')
        ->and(SignInPolicy::read('1:1 card, 2:2 card, 3:3 own, 5:5 own')->text())
        ->toBe('1:2 card, 3:3 own, 5:5 own')
        ->and(SignInPolicy::read('')->way('nonsense')->value)
        ->toBe('passphrase')
        ->and(SignInPolicy::read('4:4 card')->way('03')->value)
        ->toBe('passphrase')
        ->and(fn() => SignInPolicy::read('1:3 card, 3:4 own'))
        ->toThrow(Refusal::class, 'Two bands hold grade 3. Each grade stands in one.')
        ->and(fn() => SignInPolicy::read('3:1 card'))
        ->toThrow(Refusal::class, '“3:1 card” is not a band of grades with a way to sign in.');
});

it('codes of the second factor, to their edges', function (): void {
    $totp = Totp::fromBase32('mzxw6ytboi======');
    expect($totp->base32())
        ->toBe('MZXW6YTBOI')
        ->and(fn() => Totp::fromBase32('MZX1'))
        ->toThrow(InvalidArgumentException::class, '“1” is not Base32.')
        ->and(fn() => new Totp(''))
        ->toThrow(InvalidArgumentException::class);
    $now = 1_800_000_000;
    $step = intdiv($now, 30);
    // One step early or late is taken, two are not; and none twice.
    foreach ([-2 => null, -1 => $step - 1, 0 => $step, 1 => $step + 1, 2 => null] as $drift => $taken) {
        expect($totp->accept($totp->at($now + $drift * 30), $now, 0))->toBe($taken);
    }
    expect($totp->accept($totp->at($now), $now, $step - 1))
        ->toBe($step)
        ->and($totp->accept($totp->at($now), $now, $step))
        ->toBeNull()
        ->and($totp->accept(chunk_split($totp->at($now), 3, ' '), $now, 0))
        ->toBe($step)
        ->and($totp->uri('Vantrel Demo', 'ines@x.example'))
        ->toBe(
            'otpauth://totp/Vantrel%20Demo:ines%40x.example?secret=MZXW6YTBOI&issuer=Vantrel%20Demo&digits=6&period=30',
        );
});
