<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\Addresses;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Accounts\Identities;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\Canonical;
use Vantrel\Core\Values\MailAddress;

$ids = new Ids('01K3CNQ0000000000000000000');

it('keeps one form of an address or user name, and folds nothing else', function (string $typed, string $kept): void {
    expect(Canonical::of($typed))->toBe($kept)->and(Canonical::of($kept))->toBe($kept);
})->with([
    [' Ines.Halloran@Lanternfield.example ', 'ines.halloran@lanternfield.example'],
    ["\u{00A0}ines@x.example\u{3000}", 'ines@x.example'],
    ["ZOE\u{0308}@x.example", "zo\u{00EB}@x.example"],
    ["\u{00C9}va@x.example", "\u{00E9}va@x.example"],
    // Letters that only look like ASCII stay what they are.
    ["\u{212A}im@x.example", "\u{212A}im@x.example"],
    ["\u{017F}am@x.example", "\u{017F}am@x.example"],
    ["\u{FF49}nes@x.example", "\u{FF49}nes@x.example"],
    ["\u{0130}nes@x.example", "\u{0130}nes@x.example"],
]);

it('never makes an ASCII address of one that is none, letter by letter over all of Unicode', function (): void {
    for ($code = 0x80; $code <= 0x1ffff; $code++) {
        if ($code >= 0xd800 && $code <= 0xdfff) {
            continue;
        }
        $letter = mb_chr($code);
        $kept = Canonical::of("a{$letter}b");
        if (preg_match('/^[\x00-\x7F]*$/', $kept) === 1) {
            throw new RuntimeException(sprintf('U+%04X becomes %s', $code, $kept));
        }
    }
    expect(MailAddress::read(' <Kim@X.example> ')?->address)
        ->toBe('kim@x.example')
        ->and(MailAddress::read("\u{212A}im@x.example")?->address)
        ->not->toBe('kim@x.example');
});

it('confirms an address the school hands out itself, and only claims all others', function (
    string $kind,
    string $address,
    bool $confirmed,
): void {
    $given = Address::given($address, $kind, ['x.example'], AddressSource::Listed, ACCOUNTS_NOW);
    expect($given->confirmed)
        ->toBe($confirmed)
        ->and($given->columns()['email_by'])
        ->toBe($confirmed ? 'school' : 'list');
})->with([
    ['staff', 'a@x.example', true],
    ['student', 'a@x.example', true],
    ['guardian', 'a@x.example', false],
    ['staff', 'a@y.example', false],
    ['student', 'a@sub.x.example', false],
    ['staff', 'a@xx.example', false],
]);

it('says what of an address is new, and never makes a confirmed one less', function (): void {
    $claimed = fn(string $a): Address => Address::claimed($a, AddressSource::Listed, ACCOUNTS_NOW);
    expect($claimed('petra@x.example')->changes(staffRow()))
        ->toBe([])
        ->and($claimed('other@x.example')->changes(staffRow()))
        ->toMatchArray(['email' => 'other@x.example', 'email_state' => 'claimed'])
        ->and(
            Address::confirmed('petra@x.example', AddressSource::School, ACCOUNTS_NOW)->changes(
                staffRow(['email_state' => 'claimed']),
            ),
        )
        ->toMatchArray(['email_state' => 'confirmed', 'email_by' => 'school'])
        ->and(Address::claimed('', AddressSource::Door, ACCOUNTS_NOW)->columns())
        ->toBe(['email' => null, 'email_state' => 'claimed', 'email_by' => null, 'email_at' => null])
        ->and(Address::none()->changes(staffRow()))
        ->toBe([]);
    $confirm = Addresses::confirm(
        staffRow(['email_state' => 'claimed', 'email_by' => 'list']),
        AddressSource::Mail,
        ACCOUNTS_NOW,
    );
    expect($confirm->changes[0]->after)
        ->toBe(['email_state' => 'confirmed', 'email_by' => 'mail', 'email_at' => ACCOUNTS_NOW])
        ->and(fn() => Addresses::confirm(staffRow(['email' => null]), AddressSource::Mail, ACCOUNTS_NOW))
        ->toThrow(Refusal::class);
});

it('ends one way to sign in and leaves the others', function (): void {
    expect(changesOf(Credentials::endSecret(signInRow())))
        ->toBe(['sign_ins si' => ['password' => null]])
        ->and(changesOf(Credentials::endSecret(signInRow(null, 'sealed'))))
        ->toBe(['sign_ins si' => ['passphrase' => null]])
        ->and(changesOf(Credentials::endBadge(badgeRow(), 'Petra', ACCOUNTS_NOW)))
        ->toBe(['badges b-live' => ['state' => 'lost', 'ended_at' => ACCOUNTS_NOW]])
        ->and(changesOf(Credentials::endIdentity(identityRow(), 'Petra', ACCOUNTS_NOW)))
        ->toBe(['identities i-live' => ['state' => 'ended', 'ended_at' => ACCOUNTS_NOW]])
        ->and(fn() => Credentials::endSecret(signInRow(null)))
        ->toThrow(Refusal::class, 'nothing to end')
        ->and(fn() => Credentials::endBadge(badgeRow('lost'), 'Petra', ACCOUNTS_NOW))
        ->toThrow(Refusal::class)
        ->and(fn() => Credentials::endIdentity(identityRow('ended'), 'Petra', ACCOUNTS_NOW))
        ->toThrow(Refusal::class);
});

it('ends all of them at once, and counts what ended', function (): void {
    $plan = Credentials::endAll(
        staffRow(),
        [signInRow(), signInRow(null)],
        [badgeRow(), badgeRow('lost')],
        [identityRow(), identityRow('ended')],
        ACCOUNTS_NOW,
    );
    expect(array_keys(changesOf($plan)))
        ->toBe(['sign_ins si', 'badges b-live', 'identities i-live'])
        ->and($plan->sentence)
        ->toBe(
            'Ends 1 password or passphrase, 1 card and 1 school sign-on of Petra Okonjo at once, with every ' .
                'open session. User names stay.',
        );
    expect(Credentials::endAll(staffRow(), [], [], [], ACCOUNTS_NOW)->isEmpty())->toBeTrue();
});

it('links a sign-on to a person by the provider’s own name for them', function () use ($ids): void {
    $plan = Identities::link('petra', 'Petra Okonjo', 'https://id.example', 'sub-1', $ids, ACCOUNTS_NOW)->plan;
    expect($plan->changes[0]->after)
        ->toMatchArray(['person_id' => 'petra', 'subject' => 'sub-1', 'state' => 'live'])
        ->and($plan->changes[0]->id)
        ->not->toBe(
            Identities::link('petra', 'P', 'https://id.example', 'sub-2', $ids, ACCOUNTS_NOW)->plan->changes[0]->id,
        );
});

it('says of each action whether and how long it can be undone', function (): void {
    foreach (Action::cases() as $action) {
        expect($action->undoDays() === null)->toBe($action->whyNot() !== null);
    }
    expect(Action::YearTurn->undoDays())
        ->toBe(14)
        ->and(Action::Password->whyNot())
        ->toContain('link')
        ->and(array_values(array_filter(Action::cases(), fn(Action $a): bool => $a->undoDays() === null)))
        ->toBe([Action::CleanUp, Action::Erase, Action::Password, Action::Redo, Action::SecondFactor, Action::Seen]);
});
