<?php

declare(strict_types=1);

use Tests\Support\Boundaries;

// Every place of the code that ends in a session, with the proof it rests on. A new one fails until its proof stands
// here: nothing is trusted by resemblance.

const PROOFS = [
    'app/Accounts/FollowMerge.php handle' =>
        'the session of an account that was merged, which stands only while its secret does',
    'app/Accounts/Http/PasskeyController.php show' =>
        'a signature of the key that its device gives up to whoever it knows, on a question asked once',
    'app/Accounts/Http/SessionController.php badge' => 'the token of a printed card, 128 bits',
    'app/Accounts/Http/SessionController.php card' => 'the token of a printed card, 128 bits',
    'app/Accounts/Http/SessionController.php secondFactor' => 'what was typed before, and a code of the second factor',
    'app/Accounts/Http/SessionController.php store' => 'user name and passphrase or password',
    'app/Accounts/Http/SingleSignOnController.php back' => 'a signed token of the provider, by state and nonce',
    'app/Accounts/SignInDesk.php enter' => 'that of whoever calls it',
    'app/Door/Http/ComeController.php ask' => 'a link of 128 bits, sent to the address; a new account',
    'app/Door/Http/NewcomerController.php asked' => 'the password that this browser chose when it asked',
    'app/Door/Http/NewcomerController.php claim' => 'a birth date or number on record, of an account nobody has used',
    'app/Door/Http/NewcomerController.php confirm' => 'a link of 128 bits, sent to an address of the school',
    'app/Door/Http/RoomController.php enter' => 'the token of a room pass, in its hours, and the pictures of the child',
    'app/Guardians/Http/GuardianLinkController.php accept' => 'a link of 128 bits, sent to the address on record',
    'app/Staffing/Http/OwnInvitationController.php accept' => 'a link of 128 bits, sent to the address; a new account',
];

it('names the proof of every path that ends in a session', function (): void {
    $found = [];
    foreach (Boundaries::files('app') as $path => $code) {
        $method = '';
        foreach (explode("\n", $code) as $line) {
            if (preg_match('/^    (?:public|private|protected)(?: static)? function (\w+)/', $line, $m) === 1) {
                $method = $m[1];
            }
            $opens = '/(->by(Name|SecondFactor|Badge|Passkey|SignOn|RoomPass|NewSecret)\(|Auth::login|->login\()/';
            if (preg_match($opens, $line) === 1) {
                $found["$path $method"] = true;
            }
        }
    }
    $found = array_keys($found);
    sort($found);
    expect($found)->toBe(array_keys(PROOFS));
});
