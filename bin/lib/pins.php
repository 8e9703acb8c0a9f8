<?php

declare(strict_types=1);

// Holds the whole tree of PHP packages to exact versions: Composer writes no lock file here, so composer.pins is one.
//   php bin/lib/pins.php merge FILE   composer.json with every pin as a requirement, for Composer to install from
//   php bin/lib/pins.php check        whether what is in vendor/ is what the pins say
//   php bin/lib/pins.php write        pins of what is in vendor/ now, after a package was changed on purpose

$root = dirname(__DIR__, 2);
$pins = $root . '/composer.pins';

/** @return array<string, array{string, bool}> name to version and whether it is for development only */
$read = function () use ($pins): array {
    $found = [];
    foreach (file($pins, FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) ?: [] as $line) {
        if ($line[0] !== '#') {
            $parts = explode(' ', $line);
            $found[$parts[0]] = [$parts[1], ($parts[2] ?? '') === 'dev'];
        }
    }

    return $found;
};
/** @return array<string, array{string, bool}> */
$installed = function () use ($root): array {
    $json = json_decode(
        (string) file_get_contents($root . '/vendor/composer/installed.json'),
        true,
        64,
        JSON_THROW_ON_ERROR,
    );
    $found = [];
    foreach ($json['packages'] as $package) {
        $found[$package['name']] = [
            ltrim($package['version'], 'v'),
            in_array($package['name'], $json['dev-package-names'], true),
        ];
    }
    ksort($found);

    return $found;
};

switch ($argv[1] ?? '') {
    case 'merge':
        $json = json_decode((string) file_get_contents($root . '/composer.json'), true, 64, JSON_THROW_ON_ERROR);
        foreach ($read() as $name => [$version, $dev]) {
            $json[$dev ? 'require-dev' : 'require'][$name] ??= $version;
        }
        file_put_contents(
            $argv[2],
            json_encode($json, JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES) . "\n",
        );
        break;
    case 'check':
        $want = $read();
        $have = $installed();
        $wrong = [];
        foreach ($want as $name => [$version, $dev]) {
            if (!isset($have[$name]) && !$dev) {
                $wrong[] = "$name $version is missing";
            } elseif (isset($have[$name]) && $have[$name][0] !== $version) {
                $wrong[] = "$name is {$have[$name][0]}, not $version";
            }
        }
        foreach (array_diff_key($have, $want) as $name => [$version]) {
            $wrong[] = "$name $version is not in composer.pins";
        }
        foreach ($wrong as $line) {
            fwrite(STDERR, "  $line\n");
        }
        exit($wrong === [] ? 0 : 1);
    case 'write':
        $lines = ['# Exact versions of the whole tree of PHP packages. Written by: php bin/lib/pins.php write'];
        foreach ($installed() as $name => [$version, $dev]) {
            $lines[] = "$name $version" . ($dev ? ' dev' : '');
        }
        file_put_contents($pins, implode("\n", $lines) . "\n");
        break;
    default:
        fwrite(STDERR, "pins.php merge FILE | check | write\n");
        exit(2);
}
